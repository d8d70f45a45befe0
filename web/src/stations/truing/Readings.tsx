import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { TruingTest, Units } from '../../api/types';
import { formatDial } from '../../measure/format';
import { nameOf } from '../../ui/truingTests';

export type Sizes = Partial<
  Record<'gap_mm' | 'height_mm' | 'length_mm' | 'wanted_mm' | 'measured_mm', number>
>;

export function Readings({
  rounds,
  round,
  test,
  n,
  doubtful,
  units,
  onAgain,
}: {
  rounds: [number[], number[]];
  round: 0 | 1;
  test: TruingTest;
  n: number;
  doubtful: Set<number>;
  units: Units;
  onAgain: (i: number) => void;
}) {
  const now = rounds[round];
  return (
    <Box
      component="ol"
      aria-label={t`Readings`}
      sx={{
        listStyle: 'none',
        m: 0,
        mt: 1.5,
        p: 0,
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
        columnGap: 2,
        fontSize: 15,
        // One rule for all rows: a blade has up to two hundred teeth.
        '& li': { display: 'flex', gap: 1, alignItems: 'baseline', minHeight: 22 },
        '& span': { color: 'text.secondary', flex: 1 },
      }}
    >
      {now.map((v, i) => (
        <li key={i}>
          <span>{nameOf(test, round, i, n)}</span>
          <b>{formatDial(v, units)}</b>
          {doubtful.has(i) && (
            <Button
              size="small"
              color="error"
              sx={{ minHeight: { xs: 44, md: 0 }, p: 0, minWidth: { xs: 44, md: 0 } }}
              aria-label={t`Read ${nameOf(test, round, i, n)} again`}
              onClick={() => onAgain(i)}
            >
              {t`again?`}
            </Button>
          )}
        </li>
      ))}
    </Box>
  );
}
