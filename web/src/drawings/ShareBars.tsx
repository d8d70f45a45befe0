/** How often something came out badly, for each of a few things: bars in per cent, and a touch chooses one. */
import { wordOf } from './codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { BarChart } from '@mui/x-charts/BarChart';
import { trim } from '../measure/format';

export interface Share {
  id: string;
  name: string;
  bad: number; // rows
  of: number; // rows
}

interface Props {
  label: string; // what is shared out, as "walls browned"
  shares: Share[];
  colour: string;
  onChoose: (id: string) => void;
}

const ROW = 22;

export function ShareBars({ label, shares, colour, onChoose }: Props) {
  const percent = (s: Share) => (100 * s.bad) / s.of;
  return (
    <Box
      role="img"
      aria-label={`${label}: ${shares.map((s) => t`${wordOf(s.name)} ${trim(percent(s), 0)} % of ${s.of}`).join(', ')}`}
      sx={{ height: shares.length * ROW + 60, '& .MuiBarElement-root': { cursor: 'pointer' } }}
    >
      <BarChart
        layout="horizontal"
        skipAnimation
        hideLegend
        margin={{ top: 0, right: 24, bottom: 0, left: 0 }}
        yAxis={[
          {
            scaleType: 'band',
            data: shares.map((s) => wordOf(s.name)),
            width: 104,
            categoryGapRatio: 0.35,
            disableTicks: true,
            tickLabelStyle: { fontSize: 14 },
          },
        ]}
        xAxis={[
          {
            min: 0,
            max: Math.max(10, ...shares.map(percent)),
            tickNumber: 4,
            height: 58,
            valueFormatter: (v: number) => `${v} %`,
            label: t`${label}, of all cuts`,
            tickLabelStyle: { fontSize: 13 },
            labelStyle: { fontSize: 13 },
          },
        ]}
        series={[
          {
            data: shares.map(percent),
            color: colour,
            valueFormatter: (v: number | null, c: { dataIndex: number }) => {
              const s = shares[c.dataIndex]!;
              return v === null ? '' : t`${trim(v, 0)} %, ${s.bad} of ${s.of}`;
            },
          },
        ]}
        onAxisClick={(_, d) => d && onChoose(shares[d.dataIndex]!.id)}
      />
    </Box>
  );
}
