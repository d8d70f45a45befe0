/** What is under way: washes with their timers, grooves that are being fitted, and blades that are away. */
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { CareNow } from '../api/care';
import { usePreferences } from './preferences';
import { EmptyPeg, GrooveGlyph, TimerRing } from '../drawings/TimerRing';
import { formatThin } from '../measure/format';
import { useDates } from './useDates';
import { useNow } from './useNow';
import { TakeBack } from './SendAndReturn';
import { countdown } from './washTimer';

interface Props {
  sheet: CareNow;
  search: string;
  column?: boolean; // one under the other, with a heading
}

export const anyUnderWay = (s: CareNow) => s.washes.length + s.away.length + s.grooves.length > 0;

export function UnderWay({ sheet, search, column = false }: Props) {
  const { date, today } = useDates();
  const now = useNow(1000);
  const { units } = usePreferences();
  if (!anyUnderWay(sheet)) return null;
  return (
    <Box component="section" aria-label={t`In progress`} sx={{ mt: column ? 0 : 1 }}>
      {column && <Typography variant="h2">{t`In progress`}</Typography>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: column ? 0 : 3 }}>
        {sheet.washes.map((w) => {
          const timer = countdown(w, now);
          return (
            <Slip
              key={w.id}
              column={column}
              picture={<TimerRing share={timer.share} text={timer.text || '…'} late={timer.rings} />}
            >
              <Box>
                <b>{w.steps[w.step]?.title}</b>: {w.blades.map((b) => b.name).join(', ')}
              </Box>
              <Button component={Link} to={`/care/wash/${w.id}${search}`} variant="outlined">
                {t`Continue`}
              </Button>
            </Slip>
          );
        })}
        {sheet.grooves.map((g) => (
          <Slip key={g.id} column={column} picture={<GrooveGlyph />}>
            <Box>
              <Trans>
                <b>{formatThin(g.target_mm, units)} groove</b> on {g.saw_name}: {g.blade_name},{' '}
                {plural(g.tests, { one: '# test', other: '# tests' })}
              </Trans>
            </Box>
            <Button component={Link} to={`/groove/${g.id}${search}`} variant="outlined">{t`Continue`}</Button>
          </Slip>
        ))}
        {sheet.away.map((a) => {
          const late = a.expected && a.expected < today(now);
          return (
            <Slip key={a.blade_id} column={column} picture={<EmptyPeg />}>
              <Box>
                <Trans>
                  <b>{a.blade_name}</b> is with {a.to}.
                </Trans>{' '}
                {a.expected && (late ? t`It was due ${date(a.expected)}.` : t`Due ${date(a.expected)}.`)}
              </Box>
              <TakeBack id={a.blade_id} name={a.blade_name} />
              <Button component={Link} to={`/care/slip?b=${a.blade_id}`}>{t`Packing slip`}</Button>
            </Slip>
          );
        })}
      </Box>
    </Box>
  );
}

/** One thing under way: its picture, what it is, and what to do with it. */
function Slip({ picture, column, children }: { picture: ReactNode; column: boolean; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'flex',
        gap: 1.5,
        py: 1,
        width: column ? '100%' : 'auto',
        maxWidth: 420,
        borderTop: column ? '1px solid' : 0,
        borderColor: 'divider',
        lineHeight: 1.3,
      }}
    >
      {picture}
      <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>{children}</Box>
    </Box>
  );
}
