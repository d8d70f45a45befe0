/** One blade at one height: the drawing, the settings to read at arm's length, and what they lead to. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type {
  Blade,
  Cut,
  Face,
  Material,
  Option,
  Pin,
  Plan,
  Saw,
  Setting,
  Sweep,
  Units,
} from '../../api/types';
import { cutFace } from '../../app/theme';
import { saveSvg } from '../../drawings/save';
import { SideView } from '../../drawings/SideView';
import { specOf } from '../../drawings/words';
import { formatSetting, formatThin, percent, trim } from '../../measure/format';
import { saidMinutes, saidSeconds, shortMinutes, stretchOf } from '../../ui/feed';
import { FeedWindow } from '../../ui/FeedWindow';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/Word';

const EndOf = lazy(() => import('./EndOf').then((m) => ({ default: m.EndOf })));
const Schools = lazy(() => import('./Schools').then((m) => ({ default: m.Schools })));
const Hold = lazy(() => import('./Hold').then((m) => ({ default: m.Hold })));
const Compare = lazy(() => import('./Compare').then((m) => ({ default: m.Compare })));

interface Props {
  plan: Plan;
  cut: Cut;
  saw: Saw;
  material: Material | undefined;
  blade: Blade;
  option: Option;
  setting: Setting;
  schools: Sweep['schools'];
  passes: Sweep['passes'];
  blades: Map<string, Blade>;
  pins: Pin[];
  card: string; // where the setup card of this setting stands
  units: Units;
  problem: string | undefined;
  onHeight: (mm: number) => void;
  onPin: () => void;
  onMount: () => void;
  onUnpin: (i: number) => void;
  onBlade: (id: string) => void; // take another blade instead
  children: ReactNode; // what is done when the cut is made
}

type View = 'side' | 'end' | 'heights' | 'hold' | 'compare';

export function SettingPanel({
  plan,
  cut,
  saw,
  material,
  blade,
  option,
  setting,
  schools,
  passes,
  blades,
  pins,
  card,
  units,
  problem,
  onHeight,
  onPin,
  onMount,
  onUnpin,
  onBlade,
  children,
}: Props) {
  const drawing = useRef<HTMLDivElement>(null);
  const heights = option.heights;
  const [view, setView] = useState<View>('side');
  const views: { value: View; name: string }[] = [
    { value: 'side', name: 'Side' },
    { value: 'end', name: 'End' },
    ...(schools.length > 0 ? [{ value: 'heights' as const, name: 'Heights' }] : []),
    { value: 'hold', name: 'Hold' },
    ...(pins.length > 0 ? [{ value: 'compare' as const, name: `Compare ${pins.length}` }] : []),
  ];
  const movable = heights && (!heights.exact || cut.motion === 'push' || plan.both_faces);
  const section = { width_mm: plan.meets_width_mm, thickness_mm: plan.meets_thickness_mm };
  const shown = views.some((v) => v.value === view) ? view : 'side';
  // These are read for themselves, so they get the whole height.
  const wide = shown === 'heights' || shown === 'hold' || shown === 'compare';
  const name = saw.kind === 'table' ? 'Height' : 'Depth';
  const stretch = stretchOf(plan, units);
  return (
    <Box
      component="section"
      aria-label={`${blade.name} at its setting`}
      sx={{ display: 'flex', flexDirection: 'column', minWidth: 0, height: { md: '100%' }, gap: 0.75 }}
    >
      <Box
        sx={{
          flex: { md: 1 },
          minHeight: 0,
          overflow: { md: 'auto' },
          display: 'flex',
          flexDirection: 'column',
          gap: 0.75,
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
          <Typography variant="h1" component="h1" sx={{ overflowWrap: 'anywhere' }}>
            {blade.name}
          </Typography>
          <Box sx={{ fontSize: 18 }}>
            <Verdict verdict={worse(plan, option, setting)} size={18} />
          </Box>
          <Box sx={{ flex: 1 }} />
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
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, flexWrap: 'wrap', mt: -0.75 }}>
          <Box sx={{ color: 'text.secondary', flex: { xs: '1 0 100%', sm: 1 }, minWidth: 180, fontSize: 15 }}>
            {specOf(blade, units)},{' '}
            {option.mounted ? 'on the saw now' : `hangs: ${blade.hangs || 'not said'}`}
          </Box>
          {!option.mounted && (
            <Button size="small" sx={small} onClick={onMount}>
              Mount it
            </Button>
          )}
          <Button size="small" sx={small} onClick={onPin}>
            Pin to compare
          </Button>
          <Button size="small" sx={small} component={Link} to={card}>
            Setup card
          </Button>
          <Button
            size="small"
            sx={small}
            onClick={() => saveSvg(drawing.current, `${blade.name} ${shown}`)}
            disabled={shown === 'compare'}
          >
            Save drawing
          </Button>
        </Box>

        <Box
          sx={{
            flex: { md: 1 },
            height: { xs: 224, sm: 340, md: 'auto' },
            flexShrink: 0,
            minHeight: { md: wide ? 0 : 196 },
            borderTop: '1px solid',
            borderBottom: '1px solid',
            borderColor: 'divider',
            ...(wide ? { height: 'auto', overflow: { md: 'auto' } } : {}),
          }}
          ref={drawing}
        >
          {shown === 'side' && (
            <SideView
              saw={saw}
              blade={blade}
              cut={cut}
              material={material}
              setting={setting}
              section={section}
              fullMm={movable ? heights.full_mm : 0}
              showFace={plan.show_face}
              units={units}
              onHeight={onHeight}
            />
          )}
          <Suspense fallback={<Box sx={{ p: 1 }}>Laying it out…</Box>}>
            {shown === 'end' && <EndOf id={blade.id} cut={cut} units={units} />}
            {shown === 'heights' && (
              <Schools {...{ schools, plan, cut, saw, material, blade, units, onHeight }} />
            )}
            {shown === 'hold' && <Hold {...{ plan, saw, units }} />}
            {shown === 'compare' && <Compare {...{ cut, stretch, pins, blades, units, onUnpin }} />}
          </Suspense>
        </Box>

        {!wide && (
          <>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: movable ? '250px minmax(0,1fr)' : 'minmax(0,1fr)' },
                columnGap: 3,
                rowGap: 1.5,
                alignItems: 'start',
              }}
            >
              {movable && (
                <Box>
                  <LengthField
                    label={name}
                    mm={setting.height_mm}
                    units={units}
                    onLength={onHeight}
                    problem={problem}
                    large
                  />
                  <Box
                    sx={{ display: heights.exact ? 'none' : 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.75 }}
                  >
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
                  <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1 }}>
                    {saidSeconds(setting, units)}
                  </Box>
                  <Box sx={{ color: 'text.secondary' }}>for {stretch.name}</Box>
                  <Box sx={{ ml: 'auto', fontFamily: cutFace, fontSize: 17, fontWeight: 600 }}>
                    window {setting.window.grade}, {trim(setting.window.room, 1)}
                  </Box>
                </Box>
                <Box sx={{ mt: 0.75 }}>
                  <FeedWindow setting={setting} stretch={stretch} tall />
                </Box>
              </Box>
            </Box>

            <Box
              component="dl"
              sx={{
                m: 0,
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fit, minmax(84px, 1fr))',
                borderTop: '1px solid',
                borderColor: 'divider',
                '& > div': { pt: 0.5, pr: 1 },
              }}
            >
              <Figure
                name="motor load"
                value={percent(setting.load)}
                note={`of ${trim(plan.power_limit_w, 0)} W`}
              />
              <Figure name="scorch" value={burn(setting.burn)} note="walls in 100" />
              {setting.wall_limit_mm !== undefined && cut.finish !== 'hidden' && (
                <Figure
                  name="wall marks"
                  value={formatThin(setting.wall_mark_mm, units)}
                  note={`of ${formatThin(setting.wall_limit_mm, units)}`}
                />
              )}
              <Figure
                name={(cut.pieces ?? 1) > 1 ? `${cut.pieces} pieces` : 'one piece'}
                value={shortMinutes(setting.minutes.all)}
                note={
                  setting.minutes.rework * (cut.pieces ?? 1) >= 0.5
                    ? `${saidMinutes(setting.minutes.rework * (cut.pieces ?? 1))} of it mending`
                    : 'handled and fed'
                }
              />
              <FaceFigure face={setting.exit} />
              <FaceFigure face={setting.other} />
              <Figure
                name="arc in wood"
                value={formatSetting(units === 'mm' ? Math.round(setting.arc_mm) : setting.arc_mm, units)}
                note={`${trim(setting.teeth_in_cut, 1)} teeth`}
              />
              <Figure
                name={
                  saw.kind === 'table'
                    ? 'back at you'
                    : cut.motion === 'chop'
                      ? 'at the fence'
                      : 'along the cut'
                }
                value={percent(setting.push_share)}
                note="of the cutting force"
              />
            </Box>

            {passes.length > 0 && <Passes passes={passes} units={units} table={saw.kind === 'table'} />}
            <Says
              option={option}
              setting={setting}
              onHeight={onHeight}
              onBlade={onBlade}
              plan={plan}
              table={saw.kind === 'table'}
            />
          </>
        )}
      </Box>
      {children}
    </Box>
  );
}

const small = { minHeight: { xs: 44, md: 30 }, py: 0, px: 1 };

/** The passes of a cut that takes more than one. */
function Passes({ passes, units, table }: { passes: Sweep['passes']; units: Units; table: boolean }) {
  return (
    <Box component="ol" aria-label="Passes" sx={{ m: 0, pl: 2.5, fontSize: 15.5, lineHeight: 1.35 }}>
      {passes.map((p) => (
        <li key={p.name}>
          <b>{p.name}</b> {formatSetting(p.setting.height_mm, units)} {table ? 'high' : 'deep'},{' '}
          {p.setting.exit.name} {percent(p.setting.exit.of_limit)} of the splinters it bears
          {p.scorch_assessed
            ? `, scorch ${burn(p.setting.burn)} in 100.`
            : '; too shallow for scorch to be judged.'}
        </li>
      ))}
    </Box>
  );
}

/** The cut itself can be worse than the blade, the setting than both, and the blade than the setting. */
function worse(plan: Plan, option: Option, setting: Setting) {
  if (plan.verdict === 'stop') return 'stop';
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
        minWidth: { xs: 44, md: 0 },
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
      value={percent(face.of_limit)}
      note={face.of_limit > 1 ? 'of the splinters it bears: too many' : 'of the splinters it bears'}
    />
  );
}

/** One line of verdict, the change that would help most, and the cautions of this moment. */
function Says({
  option,
  setting,
  plan,
  table,
  onHeight,
  onBlade,
}: Pick<Props, 'option' | 'setting' | 'plan' | 'onHeight' | 'onBlade'> & { table: boolean }) {
  const change = option.best_change;
  return (
    <Box sx={{ fontSize: 15.5, lineHeight: 1.35 }}>
      {!setting.through && (
        <Box sx={{ fontWeight: 650 }}>This setting does not cut through; it leaves wood standing.</Box>
      )}
      {option.heights && Math.abs(option.heights.suggested_mm - setting.height_mm) < 0.01 && (
        <Box>
          <b>Why this {table ? 'height' : 'depth'}:</b> {option.heights.why}
        </Box>
      )}
      {setting.hedge && (
        <Box>
          <b>How sure:</b> {setting.hedge}; the ends of the range fade by what is not known, and the verdict
          could turn.
        </Box>
      )}
      {option.minds.map((m) => (
        <Box key={m.rule} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <Verdict verdict="mind" size={13} />
          <span>
            {m.why} <b>{m.way_out}</b>
          </span>
        </Box>
      ))}
      {setting.wall_from && plan.cut.finish !== 'hidden' && (
        <Box>
          <b>Wall marks:</b> {setting.wall_from}
          {setting.window.fast_by === 'wall' &&
            ' They bind here: true the blade, feed slower, or take another.'}
        </Box>
      )}
      {plan.learnt.length > 0 && (
        <Box>
          <b>Learnt here:</b> {plan.learnt.join('; ')}. <Link to="/shop">Switch it off</Link>
        </Box>
      )}
      {change && (
        <Box>
          <b>Helps most:</b> {change.text} The window would stand {trim(change.room, 1)} wide.{' '}
          {(change.height_mm !== undefined || change.blade_id) && (
            <ButtonBase
              onClick={() => (change.blade_id ? onBlade(change.blade_id) : onHeight(change.height_mm!))}
              sx={{
                color: 'primary.main',
                fontWeight: 650,
                fontSize: 'inherit',
                borderBottom: '2px solid',
                borderRadius: 0,
              }}
            >
              {change.blade_id ? 'Take it' : 'Set it'}
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
