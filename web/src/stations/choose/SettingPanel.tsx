/** One blade at one height: the drawing, the settings to read at arm's length, and what they lead to. */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import type { Blade, Cut, Face, Material, Option, Plan, Saw, Setting, Sweep, Units } from '../../api/types';
import { cutFace } from '../../app/theme';
import { EndView } from '../../drawings/EndView';
import { SideView } from '../../drawings/SideView';
import { specOf } from '../../drawings/words';
import { formatSetting, trim } from '../../measure/format';
import { FeedWindow } from '../../ui/FeedWindow';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/Word';
import { Schools } from './Schools';

interface Props {
  plan: Plan;
  cut: Cut;
  saw: Saw;
  material: Material | undefined;
  blade: Blade;
  option: Option;
  setting: Setting;
  schools: Sweep['schools'];
  units: Units;
  problem: string | undefined;
  onHeight: (mm: number) => void;
  children: ReactNode; // what is done when the cut is made
}

type View = 'side' | 'end' | 'heights';

const pct = (x: number) => `${trim(100 * x, 0)} %`;

export function SettingPanel({
  plan,
  cut,
  saw,
  material,
  blade,
  option,
  setting,
  schools,
  units,
  problem,
  onHeight,
  children,
}: Props) {
  const heights = option.heights;
  const [view, setView] = useState<View>('side');
  const views: { value: View; name: string }[] = [
    { value: 'side', name: 'Side' },
    { value: 'end', name: 'End' },
    ...(schools.length > 0 ? [{ value: 'heights' as const, name: 'Heights' }] : []),
  ];
  const shown = views.some((v) => v.value === view) ? view : 'side';
  const name = saw.kind === 'table' ? 'Height' : 'Depth';
  const seconds = units === 'mm' ? setting.sec_per_300mm : setting.sec_per_foot;
  return (
    <Box
      component="section"
      aria-label={`${blade.name} at its setting`}
      sx={{ display: 'flex', flexDirection: 'column', minWidth: 0, height: { md: '100%' }, gap: 0.75 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h1" component="h1" sx={{ overflowWrap: 'anywhere' }}>
          {blade.name}
        </Typography>
        <Box sx={{ color: 'text.secondary', flex: 1, minWidth: 180 }}>
          {specOf(blade, units)}, {option.mounted ? 'on the saw now' : `hangs: ${blade.hangs || 'not said'}`}
        </Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={shown}
          onChange={(_, v: View | null) => v && setView(v)}
          aria-label="Drawing"
        >
          {views.map((v) => (
            <ToggleButton
              key={v.value}
              value={v.value}
              sx={{ minHeight: { xs: 44, md: 30 }, py: 0, px: 1.25 }}
            >
              {v.name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ fontSize: 19 }}>
          <Verdict verdict={worse(option, setting)} size={20} />
        </Box>
      </Box>

      <Box
        sx={{
          flex: { md: 1 },
          height: { xs: 224, sm: 340, md: 'auto' },
          minHeight: { md: 220 },
          borderTop: '1px solid',
          borderBottom: '1px solid',
          borderColor: 'divider',
        }}
      >
        {shown === 'side' && (
          <SideView
            saw={saw}
            blade={blade}
            cut={cut}
            material={material}
            setting={setting}
            fullMm={heights?.full_mm ?? 0}
            showFace={plan.show_face}
            units={units}
            onHeight={onHeight}
          />
        )}
        {shown === 'end' && <EndView blade={blade} units={units} />}
        {shown === 'heights' && (
          <Schools {...{ schools, plan, cut, saw, material, blade, units, onHeight }} />
        )}
      </Box>

      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: heights ? '250px minmax(0,1fr)' : 'minmax(0,1fr)' },
          columnGap: 3,
          rowGap: 1.5,
          alignItems: 'start',
        }}
      >
        {heights && (
          <Box>
            <LengthField
              label={name}
              mm={setting.height_mm}
              units={units}
              onLength={onHeight}
              problem={problem}
              large
            />
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.75 }}>
              <HeightPick at={heights.proud_mm} now={setting.height_mm} onHeight={onHeight}>
                just proud
              </HeightPick>
              {saw.kind === 'table' && (
                <HeightPick at={heights.gullets_mm} now={setting.height_mm} onHeight={onHeight}>
                  gullets clear
                </HeightPick>
              )}
              {saw.kind === 'circular' && (
                <HeightPick at={heights.suggested_mm} now={setting.height_mm} onHeight={onHeight}>
                  just through
                </HeightPick>
              )}
              <HeightPick at={heights.full_mm} now={setting.height_mm} onHeight={onHeight}>
                full
              </HeightPick>
            </Box>
          </Box>
        )}
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, flexWrap: 'wrap' }}>
            <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1 }}>{trim(seconds, 1)} s</Box>
            <Box sx={{ color: 'text.secondary' }}>for {units === 'mm' ? '300 mm' : 'a foot'} of feed</Box>
            <Box sx={{ ml: 'auto', fontFamily: cutFace, fontSize: 17, fontWeight: 600 }}>
              window {setting.window.grade}, {trim(setting.window.room, 1)}
            </Box>
          </Box>
          <Box sx={{ mt: 0.75 }}>
            <FeedWindow window={setting.window} feed={setting.feed_m_min} units={units} tall />
          </Box>
        </Box>
      </Box>

      <Box
        component="dl"
        sx={{
          m: 0,
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(112px, 1fr))',
          borderTop: '1px solid',
          borderColor: 'divider',
          '& > div': { pt: 0.5, pr: 1 },
        }}
      >
        <Figure name="motor load" value={pct(setting.load)} note={`of ${trim(plan.power_limit_w, 0)} W`} />
        <Figure name="scorch" value={burn(setting.burn)} note="walls in 100" />
        <FaceFigure face={setting.exit} />
        <FaceFigure face={setting.other} />
        <Figure
          name="arc in wood"
          value={formatSetting(setting.arc_mm, units)}
          note={`${trim(setting.teeth_in_cut, 1)} teeth`}
        />
        <Figure
          name={
            saw.kind === 'table' ? 'back at you' : cut.motion === 'chop' ? 'at the fence' : 'along the cut'
          }
          value={pct(setting.push_share)}
          note="of the cutting force"
        />
      </Box>

      <Says option={option} setting={setting} onHeight={onHeight} plan={plan} />
      {children}
    </Box>
  );
}

/** The setting can be worse than the blade's own verdict, and the blade than the setting. */
function worse(option: Option, setting: Setting) {
  return option.verdict === 'mind' || setting.verdict === 'mind' ? 'mind' : option.verdict;
}

const burn = (p: number) => (p < 0.005 ? '<1' : trim(100 * p, 0));

function HeightPick({
  at,
  now,
  onHeight,
  children,
}: {
  at: number;
  now: number;
  onHeight: (mm: number) => void;
  children: string;
}) {
  const on = Math.abs(at - now) < 0.01;
  return (
    <ButtonBase
      aria-pressed={on}
      onClick={() => onHeight(at)}
      sx={{
        px: 1,
        minHeight: { xs: 44, md: 30 },
        fontSize: 14.5,
        fontWeight: on ? 700 : 500,
        color: 'primary.main',
        border: '1.5px solid',
        borderColor: on ? 'primary.main' : 'divider',
        borderRadius: 1,
      }}
    >
      {children}
    </ButtonBase>
  );
}

function Figure({ name, value, note }: { name: string; value: string; note: string }) {
  return (
    <div>
      <Box component="dt" sx={{ fontSize: 13.5, color: 'text.secondary', lineHeight: 1.2 }}>
        {name}
      </Box>
      <Box component="dd" sx={{ m: 0, lineHeight: 1.15 }}>
        <Box component="span" sx={{ fontSize: 22, fontWeight: 650 }}>
          {value}
        </Box>{' '}
        <Box component="span" sx={{ fontSize: 13.5, color: 'text.secondary' }}>
          {note}
        </Box>
      </Box>
    </div>
  );
}

function FaceFigure({ face }: { face: Face }) {
  if (!face.matters) return <Figure name={face.name} value="–" note="does not count" />;
  return (
    <Figure
      name={face.name}
      value={pct(face.of_limit)}
      note={face.of_limit > 1 ? 'of the splinters it bears: too many' : 'of the splinters it bears'}
    />
  );
}

/** One line of verdict, the change that would help most, and the cautions of this moment. */
function Says({ option, setting, plan, onHeight }: Pick<Props, 'option' | 'setting' | 'plan' | 'onHeight'>) {
  const change = option.best_change;
  return (
    <Box sx={{ fontSize: 15.5, lineHeight: 1.35 }}>
      {!setting.through && (
        <Box sx={{ fontWeight: 650 }}>This setting does not cut through; it leaves wood standing.</Box>
      )}
      {change && (
        <Box>
          <b>Helps most:</b> {change.text} The window would stand {trim(change.room, 1)} wide.{' '}
          {change.height_mm !== undefined && (
            <ButtonBase
              onClick={() => onHeight(change.height_mm!)}
              sx={{
                color: 'primary.main',
                fontWeight: 650,
                fontSize: 'inherit',
                borderBottom: '2px solid',
                borderRadius: 0,
              }}
            >
              Set it
            </ButtonBase>
          )}
        </Box>
      )}
      <Box
        component="ul"
        aria-label="Cautions"
        sx={{
          m: 0,
          mt: 0.25,
          pl: 2,
          color: 'text.secondary',
          fontSize: 14,
          lineHeight: 1.3,
          columnCount: { sm: 2 },
          columnGap: 3,
          '& li': { breakInside: 'avoid' },
        }}
      >
        {plan.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Box>
    </Box>
  );
}
