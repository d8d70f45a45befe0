/** How even a blade runs and its tips stand, over time. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { useTruings } from '../../api/truing';
import type { Blade, Units } from '../../api/types';
import { HistoryChart } from '../../drawings/HistoryChart';
import { formatFigure } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';
import { testWords } from '../../ui/truingTests';

export function BladeMeasured({ blade, units }: { blade: Blade; units: Units }) {
  const truings = useTruings({ blade_id: blade.id });
  return (
    <Box component="section" aria-label={t`Measured`} sx={{ mt: 2 }}>
      <Typography variant="h2">{t`Measured`}</Typography>
      {(['runout', 'clearance'] as const).map((test) => {
        const history = (truings.data ?? []).filter((it) => it.test === test);
        const last = history[0];
        return (
          <Box key={test} sx={{ py: 0.75, borderTop: '1px solid', borderColor: 'divider', fontSize: 15 }}>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
              <Box sx={{ flex: 1 }}>
                {testWords[test].title}{' '}
                {last ? (
                  <>
                    <b>{formatFigure(last.figure, last.figure_unit, units)}</b>{' '}
                    <Verdict verdict={last.verdict} size={13} />
                  </>
                ) : (
                  <Box component="span" sx={{ color: 'text.secondary' }}>{t`never`}</Box>
                )}
              </Box>
              <Button
                component={Link}
                to={`/align/${test}?blade=${blade.id}${blade.mounted_on ? `&saw=${blade.mounted_on}` : ''}`}
                variant="outlined"
                size="small"
                aria-label={t`Measure: ${testWords[test].title}`}
              >
                {t`Measure`}
              </Button>
            </Box>
            {history.length > 1 && <HistoryChart history={history} units={units} />}
          </Box>
        );
      })}
    </Box>
  );
}
