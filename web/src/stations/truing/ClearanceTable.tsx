/** Side clearance in figures, both sides, and beside another session where one is compared. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Clearance, TruingResult, Units } from '../../api/types';
import { formatDial } from '../../measure/format';

interface Props {
  result: TruingResult;
  compared: TruingResult | undefined;
  comparedName: string;
  units: Units;
}

const rows: [string, (c: Clearance) => number | undefined][] = [
  [t`Least to most`, (c) => c.range_mm],
  [t`Mean`, (c) => c.mean_mm],
  [t`Median`, (c) => c.median_mm],
  [t`Standard deviation`, (c) => c.sd_mm],
  [t`The same, by medians`, (c) => c.mad_mm],
  [t`Mean beside slots`, (c) => c.beside_slots_mm],
  [t`Mean of the rest`, (c) => c.rest_mm],
];

export function ClearanceTable({ result, compared, comparedName, units }: Props) {
  const columns = [
    [t`Left`, result.left],
    [t`Right`, result.right],
    [t`${comparedName}, left`, compared?.left],
    [t`${comparedName}, right`, compared?.right],
  ].filter((c): c is [string, Clearance] => c[1] !== undefined);
  return (
    <Box
      component="table"
      aria-label={t`Side clearance in figures`}
      sx={{
        mt: 1.5,
        borderCollapse: 'collapse',
        fontSize: 15,
        '& th': { textAlign: 'left', fontWeight: 500, color: 'text.secondary', pr: 2 },
        '& td': { textAlign: 'right', pr: 2 },
        '& th, & td': { py: 0.3, borderTop: '1px solid', borderColor: 'divider', verticalAlign: 'top' },
        '& thead th': { textAlign: 'right', borderTop: 0 },
      }}
    >
      <thead>
        <tr>
          <td />
          {columns.map(([name]) => (
            <th key={name} scope="col">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">{t`Grade`}</th>
          {columns.map(([name, c]) => (
            <td key={name}>{wordOf(c.grade)}</td>
          ))}
        </tr>
        {rows
          .filter(([, of]) => columns.some(([, c]) => of(c) !== undefined))
          .map(([name, of]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {columns.map(([side, c]) => {
                const mm = of(c);
                return <td key={side}>{mm === undefined ? '–' : formatDial(mm, units)}</td>;
              })}
            </tr>
          ))}
      </tbody>
    </Box>
  );
}
