/** Bench: the picture of the shop. Each saw with its blade, what is due where it is, what is under way, and the week that was. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useLocation } from 'react-router';
import { useCare } from '../../api/care';
import { useBench } from '../../api/shop';
import { usePreferences } from '../../ui/preferences';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { anyUnderWay, UnderWay } from '../../ui/UnderWay';
import { SawCard } from './SawCard';
import { Week } from './Week';

export function Bench() {
  const { units } = usePreferences();
  const { search } = useLocation();
  const bench = useBench();
  const care = useCare();
  // What is under way takes a column of its own: nothing is laid out before it is known.
  const laid = bench.data !== undefined && (care.data !== undefined || care.isError);
  const busy = care.data !== undefined && anyUnderWay(care.data);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="h1" sx={{ mr: 'auto' }}>{t`Saws`}</Typography>
        {bench.data?.length !== 0 && ( // an empty page has it below
          <Button component={Link} to={`/saws/new${search}`} sx={{ minHeight: { md: 32 }, py: { md: 0 } }}>
            {t`Add saw`}
          </Button>
        )}
      </Box>
      {bench.error && !bench.data && <Trouble sx={{ my: 2 }}>{bench.error.message}</Trouble>}
      {!laid && !bench.error && <Outline rows={2} height={300} />}
      {bench.data?.length === 0 && <FirstThings missing="saw" />}
      {laid && bench.data.length > 0 && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { md: busy ? 'minmax(0, 1fr) 272px' : 'minmax(0, 1fr)' },
            columnGap: 4,
          }}
        >
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 250px), 1fr))',
              rowGap: 3,
              alignItems: 'start',
            }}
          >
            {bench.data.map((b) => (
              <SawCard key={b.saw.id} bench={b} units={units} />
            ))}
          </Box>
          {busy && care.data && (
            <Box sx={{ mt: { xs: 3, md: 0 } }}>
              <UnderWay sheet={care.data} search={search} column />
            </Box>
          )}
        </Box>
      )}
      {laid && bench.data.length > 0 && <Week saws={bench.data.map((b) => b.saw)} units={units} />}
    </Box>
  );
}
