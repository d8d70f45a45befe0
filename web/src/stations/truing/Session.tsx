/** One guided session: where the dial goes, its readings, what they come to, what to move; and then again. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useBlades, useSaws } from '../../api/rack';
import { ProblemError } from '../../api/client';
import { useKeep } from '../../api/logging';
import { useTruingResult, useTruings } from '../../api/truing';
import type { Blade, Saw, TruingInput, TruingRecord, TruingResult, TruingTest, Units } from '../../api/types';
import { useBy } from '../../api/session';
import { usePreferences } from '../../ui/preferences';
import { saveSvg } from '../../drawings/save';
import { TruingView } from '../../drawings/TruingView';
import { formatDial } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { LineField } from '../../ui/Fields';
import { Verdict } from '../../ui/Verdict';
import { ClearanceTable } from './ClearanceTable';
import { isEnough } from './enough';
import { readSlots, testWords } from '../../ui/truingTests';
import { useDates } from '../../ui/useDates';
import { ReadingPane } from './ReadingPane';
import { Settings, type Setup } from './Settings';
import { useRounds } from './useRounds';
import { Found } from './Found';
import { Trouble } from '../../ui/Notice';

export function Session() {
  const { test = '' } = useParams();
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const saws = useSaws();
  const blades = useBlades();
  const saw =
    saws.data?.find((s) => s.id === params.get('saw')) ?? saws.data?.find((s) => s.kind === 'table');
  if (!(test in testWords))
    return (
      <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
        <Typography variant="h1">{t`Align`}</Typography>
        <Trouble>{t`This session doesn't exist.`}</Trouble>
      </Box>
    );
  if (!saw || !blades.data)
    return <Arriving title={testWords[test as TruingTest].title} of={[saws, blades]} drawing />;
  return (
    <Page
      key={`${test}${saw.id}`}
      test={test as TruingTest}
      saw={saw}
      blades={blades.data}
      units={units}
      first={params.get('blade') ?? saw.mounted_blade_id}
    />
  );
}

interface Props {
  test: TruingTest;
  saw: Saw;
  blades: Blade[];
  units: Units;
  first: string | undefined; // blade
}

function Page({ test, saw, blades, units, first }: Props) {
  const { day } = useDates();
  const go = useNavigate();
  const words = testWords[test];
  const [setup, setSetup] = useState<Setup>({
    blade: first,
    steps: 8,
    span: test === 'fence' ? 600 : 200,
    dial: 'right',
    instrument: test === 'fence' ? 'distance' : 'dial',
    slots: '',
    sizes: {},
  });
  const { steps, span, dial, instrument, slots, sizes } = setup;
  const blade = blades.find((b) => b.id === setup.blade);
  const [by, setBy] = useBy();
  const [before, setBefore] = useState<TruingResult>();
  const [compare, setCompare] = useState('');
  const past = useTruings(test === 'clearance' ? { test } : { test, saw_id: saw.id });
  const store = useKeep();
  const key = useRef(crypto.randomUUID());
  const drawing = useRef<HTMLDivElement>(null);

  const bladeTest = test === 'clearance' || test === 'runout';
  const n = test === 'runout' ? steps : test === 'clearance' ? (blade?.teeth ?? 0) : 2;
  const read = test !== 'tilt' && test !== 'width' && test !== 'depth';
  const readings = useRounds(n, test === 'clearance');
  const { rounds, round, now } = readings;
  const full = read && readings.full;
  const input: TruingInput = {
    test,
    saw_id: saw.id,
    blade_id: bladeTest ? blade?.id : undefined,
    units,
    by: by || undefined,
    ...(read ? { first_mm: rounds[0], second_mm: rounds[1].length > 0 ? rounds[1] : undefined } : {}),
    ...(test === 'heel' || test === 'fence' ? { span_mm: span, instrument } : {}),
    ...(test === 'heel' ? { dial } : {}),
    ...(test === 'clearance' && slots ? { slots: readSlots(slots) } : {}),
    ...sizes,
  };
  const enough = isEnough(test, rounds, n, sizes);
  const result = useTruingResult(enough ? input : undefined);
  const found = enough ? result.data : undefined;
  // No answer at all, or one that is the server's own trouble: what was read need not be lost.
  const away =
    enough && result.error !== null && !(result.error instanceof ProblemError && result.error.status < 500);
  const doubtful = new Set(round === 0 ? found?.doubtful_first : found?.doubtful_second);

  const again = () => {
    setBefore(found);
    readings.clear();
    setSetup((now) => ({ ...now, sizes: {} }));
    key.current = crypto.randomUUID();
  };
  const other = past.data?.find((r) => String(r.id) === compare);
  const compared = useTruingResult(other?.input);
  const nameOfPast = (r: TruingRecord) =>
    `${blades.find((b) => b.id === r.blade_id)?.name ?? t`a blade`}, ${day(r.at)}`;

  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Button
        component={Link}
        to={`/align?saw=${saw.id}`}
        size="small"
        sx={{ ml: -0.75 }}
      >{t`‹ Align`}</Button>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h1">{words.title}</Typography>
        <Box sx={{ color: 'text.secondary' }}>{saw.name}</Box>
        {found && <Verdict verdict={found.verdict} size={18} />}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0,5fr) minmax(0,6fr)' },
          columnGap: 4,
          rowGap: 2,
          mt: 1,
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Box component="ol" sx={{ m: 0, pl: 2.5, lineHeight: 1.4, mb: 1.5 }}>
            {(words[instrument] ?? words.how).map((h) => (
              <li key={h}>{h}</li>
            ))}
          </Box>
          <Settings
            test={test}
            setup={setup}
            blades={blades}
            begun={rounds[0].length > 0}
            units={units}
            onChange={(part) => {
              if ('blade' in part) readings.clear(); // they were of another
              setSetup((now) => ({ ...now, ...part }));
            }}
            onSize={(part) => setSetup((now) => ({ ...now, sizes: { ...now.sizes, ...part } }))}
          />
          {read && (
            <ReadingPane
              test={test}
              n={n}
              readings={readings}
              byDial={instrument === 'dial'}
              doubtful={doubtful}
              units={units}
            />
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <div ref={drawing}>
            <TruingView
              input={input}
              result={found}
              units={units}
              fromAbove={saw.kind !== 'table'}
              compare={other?.input}
              next={read && !full && n > 0 ? { round, step: now.length, of: n } : undefined}
            />
          </div>
          {result.error && enough && (
            <Trouble>
              {away
                ? t`You're offline, so these readings can't be judged yet. Save them anyway: they are judged when you're back online.`
                : result.error.message}
            </Trouble>
          )}
          {found && <Found result={found} before={before} units={units} />}
          {test === 'clearance' && (past.data?.length ?? 0) > 0 && (
            <TextField
              select
              size="small"
              label={t`Compare with`}
              value={compare}
              onChange={(e) => setCompare(e.target.value)}
              sx={{ minWidth: 220, mt: 1.5 }}
            >
              <MenuItem value="">{t`nothing`}</MenuItem>
              {past.data?.map((r) => (
                <MenuItem key={r.id} value={String(r.id)}>
                  {nameOfPast(r)}: {formatDial(r.figure, units)}
                </MenuItem>
              ))}
            </TextField>
          )}
          {found && test === 'clearance' && (
            <ClearanceTable
              result={found}
              compared={other && compared.data}
              comparedName={other ? nameOfPast(other) : ''}
              units={units}
            />
          )}
          {(found || away) && (
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2, alignItems: 'center' }}>
              {(read && test !== 'scoring') || test === 'tilt' ? (
                <>
                  <Box sx={{ width: 150 }}>
                    <LineField label={t`Measured by`} value={by} most={60} onText={setBy} />
                  </Box>
                  <Button
                    variant="contained"
                    disabled={store.isPending || doubtful.size > 0}
                    onClick={() =>
                      store.mutate(
                        { key: key.current, read: input, blade: blade && bladeTest ? blade.name : saw.name },
                        { onSuccess: () => void go(`/align?saw=${saw.id}`) },
                      )
                    }
                  >
                    {t`Save to log`}
                  </Button>
                </>
              ) : null}
              <Button variant="outlined" onClick={again}>{t`Measure again`}</Button>
              <Button size="small" onClick={() => saveSvg(drawing.current, `${words.title} ${saw.name}`)}>
                {t`Save drawing`}
              </Button>
            </Box>
          )}
          {store.error && <Trouble sx={{ mt: 1 }}>{store.error.message}</Trouble>}
        </Box>
      </Box>
    </Box>
  );
}
