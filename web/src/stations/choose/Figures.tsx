import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { Link } from 'react-router';
import type { Face, Option, Plan, Setting, Sweep, Units } from '../../api/types';
import { formatSetting, percent, trim } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';
import { type SettingPanelProps } from './SettingPanel';

export const smallButton = { minHeight: { xs: 44, md: 30 }, py: 0, px: 1 };

/** The passes of a cut that takes more than one. */
export function Passes({ passes, units, table }: { passes: Sweep['passes']; units: Units; table: boolean }) {
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
export function worstOf(plan: Plan, option: Option, setting: Setting) {
  if (plan.verdict === 'stop') return 'stop';
  return option.verdict === 'mind' || setting.verdict === 'mind' ? 'mind' : option.verdict;
}

export const burn = (p: number) => (p < 0.005 ? '<1' : trim(100 * p, 0));

export function HeightPick({
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

export function Figure({ name, value, note }: { name: string; value: string; note: string }) {
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

export function FaceFigure({ face }: { face: Face }) {
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
