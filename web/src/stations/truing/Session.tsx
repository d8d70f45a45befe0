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
import { save, saveSvg } from '../../drawings/save';
import { TruingView } from '../../drawings/TruingView';
import { formatDial } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { FileButton } from '../../ui/FileButton';
import { LineField, NumberField } from '../../ui/Fields';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { ClearanceTable } from './ClearanceTable';
import { GaugePanel } from '../../ui/GaugePanel';
import { ReadingEntry } from '../../ui/ReadingEntry';
import { isEnough } from './enough';
import { nameOf, placeOf, readSlots, testWords } from '../../ui/truingTests';
import { readRounds } from '../../measure/readings';
import { useDates } from '../../ui/useDates';
import { type Sizes, Readings } from './Readings';
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
        <Typography variant="h1">{t`True`}</Typography>
        <Trouble>{t`There is no such session.`}</Trouble>
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
  const [bladeId, setBlade] = useState(first);
  const blade = blades.find((b) => b.id === bladeId);
  const [rounds, setRounds] = useState<[number[], number[]]>([[], []]);
  const [round, setRound] = useState<0 | 1>(0);
  const [steps, setSteps] = useState(8);
  const [span, setSpan] = useState<number>(test === 'fence' ? 600 : 200);
  const [dial, setDial] = useState<'left' | 'right'>('right');
  const [instrument, setInstrument] = useState<NonNullable<TruingInput['instrument']>>(
    test === 'fence' ? 'distance' : 'dial',
  );
  const [sizes, setSizes] = useState<Sizes>({});
  const [slots, setSlots] = useState('');
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
  const now = rounds[round];
  const full = read && now.length >= n;
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

  const put = (values: number[]) => {
    const next: [number[], number[]] = [[...rounds[0]], [...rounds[1]]];
    let at = round;
    for (const v of values) {
      if (next[at].length >= n && test === 'clearance' && at === 0) at = 1;
      if (next[at].length < n) next[at].push(v);
    }
    setRounds(next);
    setRound(at);
  };
  const load = (text: string) => {
    const [one, two] = readRounds(text, units);
    if (two.length === 0) return put(one);
    setRounds([one.slice(0, n), two.slice(0, n)]);
    setRound(1);
  };
  const undo = () => {
    const next: [number[], number[]] = [[...rounds[0]], [...rounds[1]]];
    next[round].pop();
    setRounds(next);
  };
  const again = () => {
    setBefore(found);
    setRounds([[], []]);
    setRound(0);
    setSizes({});
    key.current = crypto.randomUUID();
  };
  const csv = () => {
    const head = 'place,first_mm,second_mm\n';
    const lines = rounds[0].map((v, i) => `${nameOf(test, 0, i, n)},${v},${rounds[1][i] ?? ''}`);
    save(new Blob([head + lines.join('\n') + '\n'], { type: 'text/csv' }), `${test}.csv`);
  };
  const size = (field: keyof Sizes, label: string) => (
    <LengthField
      label={label}
      mm={sizes[field]}
      units={units}
      live
      onLength={(mm) => setSizes((now) => ({ ...now, [field]: mm }))}
    />
  );
  const other = past.data?.find((r) => String(r.id) === compare);
  const compared = useTruingResult(other?.input);
  const nameOfPast = (r: TruingRecord) =>
    `${blades.find((b) => b.id === r.blade_id)?.name ?? t`a blade`}, ${day(r.at)}`;

  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Button component={Link} to={`/true?saw=${saw.id}`} size="small" sx={{ ml: -0.75 }}>{t`‹ True`}</Button>
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
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
              gap: 1.5,
              mb: 1.5,
            }}
          >
            {bladeTest && (
              <TextField
                select
                size="small"
                label={t`Blade`}
                value={blade?.id ?? ''}
                onChange={(e) => {
                  setBlade(e.target.value);
                  setRounds([[], []]);
                }}
              >
                {blades
                  .filter((b) => b.teeth > 0)
                  .map((b) => (
                    <MenuItem key={b.id} value={b.id}>
                      {b.name}
                    </MenuItem>
                  ))}
              </TextField>
            )}
            {test === 'runout' && (
              <TextField
                select
                size="small"
                label={t`Steps round`}
                value={steps}
                disabled={rounds[0].length > 0}
                onChange={(e) => setSteps(Number(e.target.value))}
              >
                {[4, 6, 8, 12, 16, 24].map((k) => (
                  <MenuItem key={k} value={k}>
                    {k}
                  </MenuItem>
                ))}
              </TextField>
            )}
            {(test === 'heel' || test === 'fence') && (
              <LengthField label={t`Front to rear`} mm={span} units={units} onLength={setSpan} />
            )}
            {(test === 'heel' || test === 'fence') && (
              <TextField
                select
                size="small"
                label={t`Read with`}
                value={instrument}
                disabled={rounds[0].length > 0}
                onChange={(e) => setInstrument(e.target.value as typeof instrument)}
              >
                <MenuItem value="dial">{t`a dial indicator`}</MenuItem>
                <MenuItem value="distance">{t`a rule or caliper`}</MenuItem>
              </TextField>
            )}
            {test === 'heel' && (
              <TextField
                select
                size="small"
                label={t`Miter slot`}
                value={dial}
                onChange={(e) => setDial(e.target.value as 'left' | 'right')}
              >
                <MenuItem value="left">{t`left of the blade`}</MenuItem>
                <MenuItem value="right">{t`right of the blade`}</MenuItem>
              </TextField>
            )}
            {test === 'clearance' && (
              <LineField
                label={t`Teeth beside slots`}
                value={slots}
                onText={setSlots}
                hint={t`such as 10, 11, 30, 31`}
              />
            )}
            {test === 'tilt' && size('height_mm', t`Height of the board`)}
            {test === 'tilt' && (
              <NumberField
                label={t`Gap, + on top`}
                unit={t`mm`}
                value={sizes.gap_mm}
                onNumber={(gap_mm) => setSizes((now) => ({ ...now, gap_mm }))}
              />
            )}
            {test === 'gauge' && size('length_mm', t`Length of the strip`)}
            {(test === 'width' || test === 'depth') && size('wanted_mm', t`Wanted`)}
            {(test === 'width' || test === 'depth') && size('measured_mm', t`Measured`)}
          </Box>
          {read && (
            <>
              {!full && n > 0 && (
                <ReadingEntry label={nameOf(test, round, now.length, n)} units={units} onRead={put} />
              )}
              {!full && n > 0 && instrument === 'dial' && placeOf(test, 0, 0, n) && (
                <GaugePanel
                  units={units}
                  place={placeOf(test, round, now.length, n)}
                  at={`${round} ${now.length}`}
                  onCapture={(mm) => put([mm])}
                />
              )}
              {test === 'clearance' && n === 0 && <Box>{t`Choose a blade with teeth.`}</Box>}
              <Readings
                rounds={rounds}
                round={round}
                test={test}
                n={n}
                doubtful={doubtful}
                units={units}
                onAgain={(i) => {
                  const next: [number[], number[]] = [[...rounds[0]], [...rounds[1]]];
                  next[round] = next[round].slice(0, i);
                  setRounds(next);
                }}
              />
              <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
                <Button size="small" variant="outlined" disabled={now.length === 0} onClick={undo}>
                  {t`Undo`}
                </Button>
                {full && round === 0 && (test === 'runout' || test === 'clearance') && (
                  <Button size="small" variant="contained" onClick={() => setRound(1)}>
                    {test === 'runout' ? t`Turned half round: read again` : t`Now the right side`}
                  </Button>
                )}
                <FileButton
                  size="small"
                  label={t`Readings file`}
                  accept=".csv,.txt,text/csv,text/plain"
                  onFile={(f) => void f.text().then(load)}
                >
                  {t`From a file`}
                </FileButton>
                <Button size="small" disabled={rounds[0].length === 0} onClick={csv}>{t`Save as CSV`}</Button>
              </Box>
            </>
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
                ? t`Corte does not answer, so nothing is said of these readings yet. They can be kept all the same, and are judged when it does.`
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
                    <LineField label={t`Who measured`} value={by} most={60} onText={setBy} />
                  </Box>
                  <Button
                    variant="contained"
                    disabled={store.isPending || doubtful.size > 0}
                    onClick={() =>
                      store.mutate(
                        { key: key.current, read: input, blade: blade && bladeTest ? blade.name : saw.name },
                        { onSuccess: () => void go(`/true?saw=${saw.id}`) },
                      )
                    }
                  >
                    {t`Keep it in the log`}
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
