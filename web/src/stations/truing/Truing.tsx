/** True: what can be measured on a saw, how it stood last, and how it has drifted. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useBlades, useSaws } from '../../api/rack';
import { useBench } from '../../api/shop';
import { useTruings } from '../../api/truing';
import type { Saw, TruingRecord, TruingStand, TruingTest, Units } from '../../api/types';
import { useAddress } from '../../ui/address';
import { usePreferences } from '../../ui/preferences';
import { HistoryChart } from '../../drawings/HistoryChart';
import { planSize, SawPlan, spotOf } from '../../drawings/SawPlan';
import { ShortScale } from '../../drawings/ShortScale';
import type { TermId } from '../../drawings/TermPicture';
import { formatFigure } from '../../measure/format';
import { Term } from '../../ui/Term';
import { Verdict } from '../../ui/Verdict';
import { testWords } from '../../ui/truingTests';
import { useDates } from '../../ui/useDates';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { Worded } from '../../ui/Worded';

/** Tests whose name is a word of the craft. */
const terms: Partial<Record<TruingTest, TermId>> = {
  heel: 'heel',
  runout: 'run-out',
  clearance: 'side-clearance',
};

export function Truing() {
  const { units } = usePreferences();
  const [params, change] = useAddress();
  const saws = useSaws();
  const bench = useBench();
  const blades = useBlades();
  const saw =
    saws.data?.find((s) => s.id === params.get('saw')) ??
    saws.data?.find((s) => s.kind === 'table') ??
    saws.data?.[0];
  const history = useTruings({ saw_id: saw?.id });
  const [shown, setShown] = useState<TruingTest>();
  const failed = saws.error ?? bench.error ?? history.error;
  const ready = Boolean(saws.data && bench.data && history.data && blades.data);
  const choose = (id: string) => change((now) => now.set('saw', id));
  const bladeOf = (test: TruingTest) =>
    blades.data?.find((b) => b.id === history.data?.find((h) => h.test === test)?.blade_id)?.name;
  const stands = bench.data?.find((b) => b.saw.id === saw?.id)?.truings ?? [];
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 2,
          alignItems: 'center',
          minHeight: { xs: 84, sm: 46 },
        }}
      >
        <Typography variant="h1">{t`Align`}</Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={saw?.id ?? null}
          onChange={(_, v: string | null) => v && choose(v)}
          aria-label={t`Saw`}
        >
          {(saws.data ?? []).map((s) => (
            <ToggleButton key={s.id} value={s.id} sx={{ px: 2 }}>
              {s.name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ color: 'text.secondary' }}>{t`Disconnect the power first.`}</Box>
      </Box>
      {failed && <Trouble sx={{ my: 2 }}>{failed.message}</Trouble>}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {!ready && !failed && <Outline rows={6} height={76} />}
      {ready && saw && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 6fr) minmax(0, 5fr)' },
            columnGap: 4,
            alignItems: 'start',
            mt: 1,
          }}
        >
          <Plan saw={saw} stands={stands} shown={shown} onShow={setShown} search={`?saw=${saw.id}`} />
          <Box
            component="ul"
            aria-label={t`Measurements on ${saw.name}`}
            sx={{ listStyle: 'none', m: 0, p: 0 }}
          >
            {saw.tests.map((test, i) => (
              <TestRow
                key={test}
                letter={letterOf(i)}
                test={test}
                saw={saw}
                stand={stands.find((s) => s.test === test)}
                all={(history.data ?? []).filter((h) => h.test === test)}
                blade={bladeOf(test)}
                shown={shown === test}
                onShow={setShown}
                units={units}
              />
            ))}
            <Box component="li" sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1 }}>
              <Trans>
                <Link to="/blades/new">Unmarked blade</Link>: count teeth by groups, measure the hook angle
                with a straightedge, kerf and plate with a caliper, and judge the bevel by eye.
              </Trans>
            </Box>
          </Box>
        </Box>
      )}
    </Box>
  );
}

const letterOf = (i: number) => String.fromCharCode(65 + i);

interface PlanProps {
  saw: Saw;
  stands: TruingStand[];
  shown: TruingTest | undefined;
  onShow: (it: TruingTest | undefined) => void;
  search: string;
}

/** The saw from above, its places as handles that open their sessions. */
function Plan({ saw, stands, shown, onShow, search }: PlanProps) {
  return (
    <Box sx={{ position: 'relative', maxWidth: 720, width: '100%', justifySelf: 'center' }}>
      <SawPlan saw={saw} />
      {saw.tests.map((test, i) => {
        const at = spotOf(saw.kind, test);
        const stand = stands.find((s) => s.test === test);
        const out = stand?.verdict !== undefined && stand.verdict !== 'clear' && stand.stale === '';
        return (
          at && (
            <Box
              key={test}
              component={Link}
              to={`/align/${test}${search}`}
              aria-label={t`${testWords[test].title}, on the drawing`}
              onPointerEnter={() => onShow(test)}
              onPointerLeave={() => onShow(undefined)}
              onFocus={() => onShow(test)}
              onBlur={() => onShow(undefined)}
              sx={{
                position: 'absolute',
                left: `${(100 * at[0]) / planSize.width}%`,
                top: `${(100 * at[1]) / planSize.height}%`,
                transform: 'translate(-50%, -50%)',
                width: 44,
                height: 44,
                borderRadius: '50%',
                display: 'grid',
                placeItems: 'center',
                fontWeight: 700,
                fontSize: 18,
                textDecoration: 'none',
                color: shown === test ? 'primary.contrastText' : 'text.primary',
                bgcolor: shown === test ? 'primary.main' : 'background.paper',
                border: stand?.stale ? '2.5px dashed' : '2.5px solid',
                borderColor: shown === test ? 'primary.main' : 'text.primary',
                boxShadow: out
                  ? '0 0 0 4px var(--mui-palette-background-default), 0 0 0 7px var(--mui-palette-text-primary)'
                  : 'none',
              }}
            >
              {letterOf(i)}
            </Box>
          )
        );
      })}
    </Box>
  );
}

interface RowProps {
  letter: string;
  test: TruingTest;
  saw: Saw;
  stand: TruingStand | undefined;
  all: TruingRecord[]; // newest first
  blade: string | undefined; // that was read last
  shown: boolean; // the pointer is on it, here or on the drawing
  onShow: (it: TruingTest | undefined) => void;
  units: Units;
}

function TestRow({ letter, test, saw, stand, all, blade, shown, onShow, units }: RowProps) {
  const { short } = useDates();
  const words = testWords[test];
  const last = all[0];
  // Plates differ: a wobble is followed on the plate that was read last.
  const history = all.filter((h) => h.blade_id === last?.blade_id);
  const band = last ?? stand;
  return (
    <Box
      component="li"
      onPointerEnter={() => onShow(test)}
      onPointerLeave={() => onShow(undefined)}
      sx={{
        borderTop: '1px solid',
        borderColor: 'divider',
        bgcolor: shown ? 'background.paper' : 'transparent',
        display: 'grid',
        gridTemplateColumns: { xs: '28px minmax(0,1fr) auto', sm: '28px minmax(0,1fr) 214px auto' },
        columnGap: 1,
        alignItems: 'center',
        py: 0.5,
      }}
    >
      <Box aria-hidden sx={{ fontWeight: 700, fontSize: 18, alignSelf: 'start', pt: 0.5 }}>
        {letter}
      </Box>
      <Box sx={{ minWidth: 0, lineHeight: 1.3 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1, alignItems: 'baseline' }}>
          <Typography variant="h3" component="h2">
            {terms[test] ? <Term of={terms[test]}>{words.title}</Term> : words.title}
          </Typography>
          {last && <Verdict verdict={last.verdict} size={13} />}
        </Box>
        <Box sx={{ fontSize: 15 }}>
          {last ? (
            <>
              <b>{formatFigure(last.figure, last.figure_unit, units)}</b>, {short(last.at)}
              {blade && `, ${blade}`}
            </>
          ) : (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              <Worded>{words.why}</Worded>
            </Box>
          )}
        </Box>
        {stand?.stale && last && (
          <Box
            sx={{ fontSize: 15, color: 'text.secondary', '&::first-letter': { textTransform: 'uppercase' } }}
          >
            {stand.stale}.
          </Box>
        )}
      </Box>
      <Box sx={{ gridColumn: { xs: '2 / 4', sm: 'auto' }, gridRow: { xs: 2, sm: 'auto' } }}>
        {history.length > 1 ? (
          <HistoryChart history={history} units={units} />
        ) : (
          band && (
            <ShortScale
              figure={last?.figure}
              unit={band.figure_unit}
              low={band.low}
              high={band.high}
              doubtful={Boolean(stand?.stale)}
              units={units}
            />
          )
        )}
      </Box>
      <Button
        component={Link}
        to={`/align/${test}?saw=${saw.id}`}
        variant="outlined"
        aria-label={t`Measure: ${words.title}`}
        sx={{ px: 1.25 }}
      >
        {t`Measure`}
      </Button>
    </Box>
  );
}
