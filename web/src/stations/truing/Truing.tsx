/** True: what can be measured on a saw, how it stood last, and how it has drifted. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Link, useSearchParams } from 'react-router';
import { useBlades, useSaws } from '../../api/rack';
import { useBench } from '../../api/shop';
import { useTruings } from '../../api/truing';
import type { Saw, TruingRecord, TruingStand, TruingTest, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { HistoryChart } from '../../drawings/HistoryChart';
import { formatFigure } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';
import { testWords } from './tests';
import { useDates } from '../../ui/useDates';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';

export function Truing() {
  const { units } = usePreferences();
  const [params, setParams] = useSearchParams();
  const saws = useSaws();
  const bench = useBench();
  const blades = useBlades();
  const saw =
    saws.data?.find((s) => s.id === params.get('saw')) ??
    saws.data?.find((s) => s.kind === 'table') ??
    saws.data?.[0];
  const history = useTruings({ saw_id: saw?.id });
  const failed = saws.error ?? bench.error ?? history.error;
  const choose = (id: string) => {
    const next = new URLSearchParams(params);
    next.set('saw', id);
    setParams(next, { replace: true });
  };
  const bladeOf = (test: TruingTest) =>
    blades.data?.find((b) => b.id === history.data?.find((h) => h.test === test)?.blade_id)?.name;
  const stands = bench.data?.find((b) => b.saw.id === saw?.id)?.truings ?? [];
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
        <Typography variant="h1">True</Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={saw?.id ?? null}
          onChange={(_, v: string | null) => v && choose(v)}
          aria-label="Saw"
        >
          {(saws.data ?? []).map((s) => (
            <ToggleButton key={s.id} value={s.id} sx={{ px: 2 }}>
              {s.name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ color: 'text.secondary' }}>Power off at the plug before any of it.</Box>
      </Box>
      {failed && <Trouble sx={{ my: 2 }}>{failed.message}</Trouble>}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {saw && (
        <Box
          component="ul"
          aria-label={`What to measure on ${saw.name}`}
          sx={{
            listStyle: 'none',
            m: 0,
            mt: 1.5,
            p: 0,
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 300px), 1fr))',
            columnGap: 4,
          }}
        >
          {saw.tests.map((test) => (
            <TestCard
              key={test}
              test={test}
              saw={saw}
              stand={stands.find((s) => s.test === test)}
              all={(history.data ?? []).filter((h) => h.test === test)}
              blade={bladeOf(test)}
              units={units}
            />
          ))}
          <Box component="li" sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1.5 }}>
            <Typography variant="h3" component="h2">
              Unknown blade
            </Typography>
            <Box sx={{ fontSize: 15, lineHeight: 1.35, mb: 1 }}>
              Teeth by groups, hook by straight edge, kerf and plate by caliper, bevel by eye.
            </Box>
            <Button component={Link} to="/rack/new" variant="outlined" size="small">
              Read it
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}

interface CardProps {
  test: TruingTest;
  saw: Saw;
  stand: TruingStand | undefined;
  all: TruingRecord[]; // newest first
  blade: string | undefined; // that was read last
  units: Units;
}

function TestCard({ test, saw, stand, all, blade, units }: CardProps) {
  const { day } = useDates();
  const words = testWords[test];
  const last = all[0];
  // Plates differ: a wobble is followed on the plate that was read last.
  const history = all.filter((h) => h.blade_id === last?.blade_id);
  return (
    <Box component="li" sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1.5, minWidth: 0 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h3" component="h2" sx={{ flex: 1 }}>
          {words.title}
        </Typography>
        {last && <Verdict verdict={last.verdict} size={14} />}
      </Box>
      <Box sx={{ fontSize: 15, lineHeight: 1.35 }}>{words.why}</Box>
      {last && (
        <Box sx={{ fontSize: 15, mt: 0.5 }}>
          <b>{formatFigure(last.figure, last.figure_unit, units)}</b> on {day(last.at)}
          {blade && `, ${blade}`}
        </Box>
      )}
      {stand?.stale && (
        <Box
          sx={{ fontSize: 15, color: 'text.secondary', '&::first-letter': { textTransform: 'uppercase' } }}
        >
          {stand.stale}.
        </Box>
      )}
      {history.length > 1 && <HistoryChart history={history} units={units} />}
      <Button
        component={Link}
        to={`/true/${test}?saw=${saw.id}`}
        variant="outlined"
        size="small"
        aria-label={`Measure: ${words.title}`}
        sx={{ mt: 1 }}
      >
        Measure
      </Button>
    </Box>
  );
}
