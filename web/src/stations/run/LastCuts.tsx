/** The last cuts on this saw; a mistake is struck out here. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useLog } from '../../api/log';
import type { Saw, Units } from '../../api/types';
import { LogRow } from '../../cut/LogRow';

const LAST = 4;

export function LastCuts({ saw, units }: { saw: Saw; units: Units }) {
  const log = useLog({ saw_id: saw.id, kind: ['cut'], limit: LAST });
  const rows = log.data?.pages[0]?.items ?? [];
  return (
    <Box component="section" aria-labelledby="last-cuts" sx={{ mt: 1 }}>
      <Typography id="last-cuts" variant="h3" component="h2">{t`Last on ${saw.name}`}</Typography>
      {log.data && rows.length === 0 && <Box>{t`Nothing yet.`}</Box>}
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map((e) => (
          <LogRow key={e.id} entry={e} units={units} named narrow />
        ))}
      </Box>
    </Box>
  );
}
