/** What is under way: washes with their timers, grooves that are being fitted, and blades that are away. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import type { CareSheet } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { counted, formatThin } from '../../measure/format';
import { useNow } from '../../ui/useNow';
import { TakeBack } from './SendAndReturn';
import { countdown } from './timer';
import { useDates } from '../../ui/useDates';

export function UnderWay({ sheet, search }: { sheet: CareSheet; search: string }) {
  const { date, today } = useDates();
  const now = useNow(1000);
  const { units } = usePreferences();
  if (sheet.washes.length + sheet.away.length + sheet.grooves.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="Under way"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 1 }}
    >
      {sheet.washes.map((w) => {
        const t = countdown(w, now);
        return (
          <Box key={w.id} sx={{ ...slip, display: 'flex', alignItems: 'center', gap: 2 }}>
            <Box>
              <b>{w.steps[w.step]?.title}</b>
              {t.text && ` ${t.text}`}: {w.blades.map((b) => b.name).join(', ')}
            </Box>
            <Button component={Link} to={`/care/wash/${w.id}${search}`} size="small" variant="outlined">
              Go on
            </Button>
          </Box>
        );
      })}
      {sheet.grooves.map((g) => (
        <Box key={g.id} sx={{ ...slip, display: 'flex', alignItems: 'center', gap: 2 }}>
          <Box>
            <b>{formatThin(g.target_mm, units)} groove</b> on {g.saw_name}: {g.blade_name},{' '}
            {counted(g.tests, 'test')}
          </Box>
          <Button component={Link} to={`/groove/${g.id}${search}`} size="small" variant="outlined">
            Go on
          </Button>
        </Box>
      ))}
      {sheet.away.map((a) => {
        const late = a.expected && a.expected < today(now);
        return (
          <Box
            key={a.blade_id}
            sx={{ ...slip, display: 'flex', alignItems: 'center', gap: 2, flexWrap: 'wrap' }}
          >
            <Box>
              <b>{a.blade_name}</b> is with {a.to}
              {a.expected && `, ${late ? 'was expected' : 'expected'} ${date(a.expected)}`}
            </Box>
            <TakeBack id={a.blade_id} name={a.blade_name} />
            <Button component={Link} to={`/care/slip?b=${a.blade_id}`} size="small">
              Packing slip
            </Button>
          </Box>
        );
      })}
    </Box>
  );
}

const slip = {
  border: '1.5px solid',
  borderColor: 'text.primary',
  bgcolor: 'background.paper',
  px: 1.5,
  py: 1,
  borderRadius: 1,
};
