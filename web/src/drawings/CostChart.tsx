/** What two ways to own a blade have cost, against the metres cut: steps, because an edge is paid for when it is begun. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { ChartsReferenceLine } from '@mui/x-charts/ChartsReferenceLine';
import { LineChart, lineClasses } from '@mui/x-charts/LineChart';
import type { Money, Units } from '../api/types';
import { formatRun, trim } from '../measure/format';
import { ink } from './ink';

export function CostChart({ money: m, units }: { money: Money; units: Units }) {
  const last = m.line.at(-1)!;
  const most = last[0]!;
  const way = (k: 1 | 2, label: string, color: string) => ({
    id: label,
    label,
    color,
    data: m.line.map((p) => p[k]!),
    showMark: false,
    curve: 'stepAfter' as const,
    valueFormatter: (v: number | null) => (v === null ? '' : trim(v, 0)),
  });
  return (
    <Box
      role="img"
      aria-label={t`Cost by length cut: sharpened ${trim(last[1]!, 0)}, cheap blades ${trim(last[2]!, 0)} after ${formatRun(most, units)}`}
      sx={{
        maxWidth: 720,
        height: 280,
        [`& .${lineClasses.line}[data-series='cheap ones']`]: { strokeDasharray: '3 4' },
      }}
    >
      <LineChart
        skipAnimation
        disableAxisListener
        margin={{ top: 8, right: 24, bottom: 0, left: 0 }}
        xAxis={[
          {
            data: m.line.map((p) => p[0]!),
            min: 0,
            max: most,
            tickNumber: 4,
            height: 36,
            valueFormatter: (v: number) => formatRun(v, units),
          },
        ]}
        yAxis={[{ min: 0, width: 52, label: t`spent` }]}
        series={[way(1, t`sharpened`, ink.ink), way(2, t`cheap blades`, ink.hair)]}
        slotProps={{
          legend: { direction: 'horizontal', position: { vertical: 'top', horizontal: 'start' } },
        }}
      >
        {m.pays_from_m !== undefined && (
          <ChartsReferenceLine x={m.pays_from_m} lineStyle={{ stroke: ink.ink, strokeDasharray: '6 4' }} />
        )}
      </LineChart>
    </Box>
  );
}
