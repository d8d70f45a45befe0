/** Rows of the log under the day that they are of. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { LogEntry, Units } from '../api/types';
import { LogRow } from './LogRow';
import { useDates } from '../ui/useDates';

interface Props {
  rows: LogEntry[];
  units: Units;
  named?: boolean; // with the blades' names
}

export function Days({ rows, units, named = false }: Props) {
  const { longDay } = useDates();
  const days: { day: string; rows: LogEntry[] }[] = [];
  for (const e of rows) {
    const day = longDay(e.at);
    if (days.at(-1)?.day === day) days.at(-1)!.rows.push(e);
    else days.push({ day, rows: [e] });
  }
  return (
    <Box component="section" aria-label={t`Rows`}>
      {days.map((d) => (
        <Box
          key={d.day}
          sx={{ display: 'grid', gridTemplateColumns: { md: '176px minmax(0, 1fr)' }, columnGap: 2, mt: 1.5 }}
        >
          <Typography variant="h3" sx={{ pt: { md: 1.25 } }}>
            {d.day}
          </Typography>
          <Box component="ol" aria-label={d.day} sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {d.rows.map((e) => (
              <LogRow key={e.id} entry={e} units={units} named={named} timed />
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
