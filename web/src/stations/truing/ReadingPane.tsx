/** The readings of a round: typed or taken from a dial gauge, listed, put right, and out of or into a file. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { TruingTest, Units } from '../../api/types';
import { save } from '../../drawings/save';
import { readRounds } from '../../measure/readings';
import { FileButton } from '../../ui/FileButton';
import { GaugePanel } from '../../ui/GaugePanel';
import { ReadingEntry } from '../../ui/ReadingEntry';
import { nameOf, placeOf } from '../../ui/truingTests';
import { Readings } from './Readings';
import type { useRounds } from './useRounds';

interface Props {
  test: TruingTest;
  n: number; // readings of a round
  readings: ReturnType<typeof useRounds>;
  byDial: boolean;
  doubtful: Set<number>; // of the round
  units: Units;
}

export function ReadingPane({ test, n, readings, byDial, doubtful, units }: Props) {
  const { rounds, round, now, full } = readings;
  const load = (text: string) => {
    const [one, two] = readRounds(text, units);
    if (two.length === 0) readings.put(one);
    else readings.load(one, two);
  };
  const csv = () => {
    const head = 'place,first_mm,second_mm\n';
    const lines = rounds[0].map((v, i) => `${nameOf(test, 0, i, n)},${v},${rounds[1][i] ?? ''}`);
    save(new Blob([head + lines.join('\n') + '\n'], { type: 'text/csv' }), `${test}.csv`);
  };
  return (
    <>
      {!full && n > 0 && (
        <ReadingEntry label={nameOf(test, round, now.length, n)} units={units} onRead={readings.put} />
      )}
      {!full && n > 0 && byDial && placeOf(test, 0, 0, n) && (
        <GaugePanel
          units={units}
          place={placeOf(test, round, now.length, n)}
          at={`${round} ${now.length}`}
          onCapture={(mm) => readings.put([mm])}
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
        onAgain={readings.cutBack}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={now.length === 0}
          onClick={() => readings.cutBack(now.length - 1)}
        >
          {t`Undo`}
        </Button>
        {full && round === 0 && (test === 'runout' || test === 'clearance') && (
          <Button size="small" variant="contained" onClick={readings.second}>
            {test === 'runout' ? t`Turned half a turn: read again` : t`Now the right side`}
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
  );
}
