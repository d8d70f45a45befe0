import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { Link } from 'react-router';
import type { Face, Option, Plan, Saw, Setting, Units } from '../../api/types';
import type { TermId } from '../../drawings/TermPicture';
import { fixed, formatSetting, formatThin, percent, trim } from '../../measure/format';
import { saidMinutes, shortMinutes } from '../../ui/feed';
import { Term } from '../../ui/Term';
import { Verdict } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';
import type { SettingPanelProps } from './setting';

export const smallButton = { minHeight: { xs: 44, md: 30 }, py: 0, px: 1 };

/** The cut itself can be worse than the blade, the setting than both, and the blade than the setting. */
export function worstOf(plan: Plan, option: Option, setting: Setting) {
  if (plan.verdict === 'stop') return 'stop';
  return option.verdict === 'caution' || setting.verdict === 'caution' ? 'caution' : option.verdict;
}

export const burn = (p: number) => (p < 0.005 ? t`under 1 %` : `${trim(100 * p, 0)} %`);

/** A push as a weight that one can picture. */
const weightSaid = (newtons: number, units: Units) =>
  units === 'mm'
    ? t`like lifting ${trim(newtons / 9.81, 1)} kg`
    : t`like lifting ${trim(newtons / 4.448, 1)} lb`;

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

function Figure({ name, term, value, note }: { name: string; term?: TermId; value: string; note: string }) {
  return (
    <div>
      <Box
        component="dt"
        sx={{
          fontSize: 13.5,
          color: 'text.secondary',
          lineHeight: 1.2,
          display: { xs: 'flex', sm: 'block' }, // a term among them is a thumb high
          alignItems: 'flex-end',
          minHeight: { xs: 44, sm: 0 },
        }}
      >
        {term ? <Term of={term}>{name}</Term> : name}
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
  if (!face.matters) return <Figure name={wordOf(face.name)} value="–" note={t`doesn't matter`} />;
  return (
    <Figure
      name={wordOf(face.name)}
      value={percent(face.of_limit)}
      note={
        face.of_limit > 1
          ? t`of the tear-out this finish allows: too much`
          : t`of the tear-out this finish allows`
      }
    />
  );
}

/** The heights that have a name, to be set by a touch. */
export function HeightPicks({
  heights,
  saw,
  now,
  onHeight,
}: {
  heights: NonNullable<Option['heights']>;
  saw: Saw;
  now: number;
  onHeight: (mm: number) => void;
}) {
  const named = [
    { at: heights.proud_mm, name: t`just above` },
    ...(saw.kind === 'table' ? [{ at: heights.gullets_mm, name: t`gullets clear` }] : []),
    ...(saw.kind === 'circular' ? [{ at: heights.suggested_mm, name: t`just through` }] : []),
    { at: heights.full_mm, name: t`full` },
  ];
  return (
    <Box sx={{ display: heights.exact ? 'none' : 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.75 }}>
      {named.map((h) => (
        <HeightPick key={h.name} at={h.at} now={now} onHeight={onHeight}>
          {h.name}
        </HeightPick>
      ))}
    </Box>
  );
}

/** What a setting comes to, figure by figure. */
export function AllFigures({
  plan,
  cut,
  setting,
  units,
}: Pick<SettingPanelProps, 'plan' | 'cut' | 'setting' | 'units'>) {
  return (
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
        name={t`motor load`}
        value={percent(setting.load)}
        note={t`of ${trim(plan.power_limit_w, 0)} W`}
      />
      <Figure name={t`burn risk`} term="burn-risk" value={burn(setting.burn)} note={t`of cuts like this`} />
      {setting.wall_limit_mm !== undefined && cut.finish !== 'hidden' && (
        <Figure
          name={t`tooth marks`}
          value={formatThin(setting.wall_mark_mm, units)}
          note={t`of ${formatThin(setting.wall_limit_mm, units)}`}
        />
      )}
      <Figure
        name={(cut.pieces ?? 1) > 1 ? t`${cut.pieces ?? 1} pieces` : t`one piece`}
        value={shortMinutes(setting.minutes.all)}
        note={
          setting.minutes.rework * (cut.pieces ?? 1) >= 0.5
            ? t`${saidMinutes(setting.minutes.rework * (cut.pieces ?? 1))} of it rework`
            : t`with handling`
        }
      />
      <FaceFigure face={setting.exit} />
      <FaceFigure face={setting.other} />
      <Figure
        name={t`arc in wood`}
        term="arc"
        value={formatSetting(units === 'mm' ? Math.round(setting.arc_mm) : setting.arc_mm, units)}
        note={t`${fixed(setting.teeth_in_cut, 1)} teeth`}
      />
      <Figure
        name={t`feed force`}
        value={t`${trim(setting.push_n, 0)} N`}
        note={weightSaid(setting.push_n, units)}
      />
    </Box>
  );
}

/** One line of verdict, the change that would help most, and the cautions of this moment. */
export function Says({
  option,
  setting,
  plan,
  table,
  onHeight,
  onBlade,
}: Pick<SettingPanelProps, 'option' | 'setting' | 'plan' | 'onHeight' | 'onBlade'> & { table: boolean }) {
  const change = option.best_change;
  return (
    <Box sx={{ fontSize: 15.5, lineHeight: 1.35 }}>
      {!setting.through && (
        <Box sx={{ fontWeight: 650 }}>{t`This setting doesn't cut all the way through.`}</Box>
      )}
      {plan.verdict !== 'stop' &&
        option.heights &&
        Math.abs(option.heights.suggested_mm - setting.height_mm) < 0.01 && (
          <Box>
            <b>{table ? t`Why this height:` : t`Why this depth:`}</b> <Worded>{option.heights.why}</Worded>
          </Box>
        )}
      {setting.hedge && (
        <Box>
          <Trans>
            <b>How sure:</b> {setting.hedge}. The ends of the range fade where Corte isn't sure, and the
            verdict could change.
          </Trans>
        </Box>
      )}
      {option.minds.map((m) => (
        <Box key={m.rule} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <Verdict verdict="caution" size={13} />
          <span>
            <Worded>{m.why}</Worded>{' '}
            <b>
              <Worded>{m.way_out}</Worded>
            </b>
          </span>
        </Box>
      ))}
      {setting.wall_from && plan.cut.finish !== 'hidden' && (
        <Box>
          <b>{t`Tooth marks:`}</b> <Worded>{setting.wall_from}</Worded>
          {setting.window.fast_by === 'wall' &&
            ` ${t`They limit this cut. Align the blade, feed slower, or use another blade.`}`}
        </Box>
      )}
      {plan.learnt.length > 0 && (
        <Box>
          <b>{t`From your cuts:`}</b> {plan.learnt.join('; ')}. <Link to="/settings">{t`Switch it off`}</Link>
        </Box>
      )}
      {change && (
        <Box>
          <b>{t`Helps most:`}</b> <Worded>{change.text}</Worded>{' '}
          {t`The feed range would be ${trim(change.room, 1)}× wide.`}{' '}
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
              {change.blade_id ? t`Use it` : t`Set it`}
            </ButtonBase>
          )}
        </Box>
      )}
      <Box
        component="ul"
        aria-label={t`Cautions`}
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
