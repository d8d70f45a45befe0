/**
 * A blade's life along the metres that it cut: how much of its edge was used
 * up and how much pitch it bore, with washes, sharpenings and burns as marks,
 * and when the edge is likely to be dull as a band that fades.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useDrawingArea, useXScale, useYScale } from '@mui/x-charts/hooks';
import { ChartsReferenceLine } from '@mui/x-charts/ChartsReferenceLine';
import { LineChart, lineClasses } from '@mui/x-charts/LineChart';
import type { Life, LifePoint, Units } from '../api/types';
import { formatRun, trim } from '../measure/format';
import { ink } from './ink';
import { legendLine } from './legendLine';
import { DROP, WEDGE } from './signs';

interface Props {
  life: Life;
  units: Units;
  day: (at: string) => string;
}

export function LifeChart({ life, units, day }: Props) {
  const points = life.points;
  if (points.length < 2) return null;
  const run = (m: number) => (units === 'mm' ? m : m / 0.3048);
  const last = points.at(-1)!;
  const ahead = life.left_m > 0 && last.edge < 1 ? life.left_high_m : 0;
  // What lies further ahead than half of what lies behind would press the past into a corner.
  const until = last.metres + Math.min(ahead, last.metres * 0.5);
  return (
    <Box
      role="img"
      aria-label={t`Over ${formatRun(last.metres, units)}: edge ${trim(100 * last.edge, 0)} % used up, resin ${trim((100 * last.pitch) / life.pitch_most, 0)} % of a full coat`}
      sx={{
        height: '100%',
        [`& .${lineClasses.line}[data-series='pitch']`]: { strokeDasharray: '6 3' },
        [`& .${lineClasses.line}`]: { strokeWidth: 2.4 },
      }}
    >
      <LineChart
        skipAnimation
        margin={{ top: 18, right: 24, bottom: 0, left: 0 }}
        xAxis={[
          {
            data: points.map((p) => run(p.metres)),
            min: 0,
            max: run(until),
            tickNumber: 6,
            height: 44,
            valueFormatter: (v: number, c: { location: string }) =>
              c.location === 'tick' ? `${trim(v, 0)} ${units === 'mm' ? 'm' : 'ft'}` : `${trim(v, 0)}`,
          },
        ]}
        yAxis={[
          {
            min: 0,
            max: Math.max(105, ...points.map((p) => 100 * p.edge)),
            width: 54,
            valueFormatter: (v: number) => `${v} %`,
          },
        ]}
        series={[
          {
            id: 'edge',
            label: t`edge used up`,
            color: ink.ink,
            data: points.map((p) => 100 * p.edge),
            showMark: false,
            curve: 'linear',
            labelMarkType: legendLine('0'),
            valueFormatter: (v: number | null, c: { dataIndex: number }) =>
              v === null ? '' : `${trim(v, 0)} %, ${day(points[c.dataIndex]!.at)}`,
          },
          {
            id: 'pitch',
            label: t`resin, of a full coat`,
            color: ink.scorch,
            data: points.map((p) => (100 * p.pitch) / life.pitch_most),
            showMark: false,
            curve: 'linear',
            labelMarkType: legendLine('6 3'),
            valueFormatter: (v: number | null) => (v === null ? '' : `${trim(v, 0)} %`),
          },
        ]}
        slotProps={{
          legend: { direction: 'horizontal', position: { vertical: 'top', horizontal: 'start' } },
        }}
      >
        <ChartsReferenceLine y={100} lineStyle={{ stroke: ink.ink, strokeDasharray: '2 4' }} />
        <ChartsReferenceLine
          y={(100 * life.pitch_due) / life.pitch_most}
          lineStyle={{ stroke: ink.scorch, strokeDasharray: '2 4' }}
        />
        <Ahead life={life} run={run} />
        <Marks points={points} run={run} />
      </LineChart>
    </Box>
  );
}

/** Where the edge is likely to be dull: likely as a line, two of three inside the band. */
function Ahead({ life: l, run }: { life: Life; run: (m: number) => number }) {
  const x = useXScale<'linear'>();
  const y = useYScale<'linear'>();
  const { left, width, top, height } = useDrawingArea();
  const last = l.points.at(-1)!;
  if (l.left_m <= 0 || last.edge >= 1) return null;
  const from = [x(run(last.metres)), y(100 * last.edge)] as const;
  const to = (m: number) => `${x(run(last.metres + m))} ${y(100)}`;
  return (
    <g clipPath="url(#ahead-clip)">
      <defs>
        <clipPath id="ahead-clip">
          <rect x={left} y={top} width={width} height={height} />
        </clipPath>
        <linearGradient id="ahead-fade">
          <stop offset="0" stopColor={ink.ink} stopOpacity={0.22} />
          <stop offset="1" stopColor={ink.ink} stopOpacity={0.03} />
        </linearGradient>
      </defs>
      <path d={`M${from.join(' ')}L${to(l.left_low_m)}L${to(l.left_high_m)}Z`} fill="url(#ahead-fade)" />
      <path
        d={`M${from.join(' ')}L${to(l.left_m)}`}
        stroke={ink.ink}
        strokeWidth={1.6}
        strokeDasharray="3 4"
        fill="none"
      />
    </g>
  );
}

function Marks({ points, run }: { points: LifePoint[]; run: (m: number) => number }) {
  const x = useXScale<'linear'>();
  const { top, height } = useDrawingArea();
  const foot = top + height;
  return (
    <g>
      {points.map((p, i) => {
        const at = x(run(p.metres));
        switch (p.what) {
          case 'wash':
            return (
              <path
                key={i}
                transform={`translate(${at} ${top - 8})`}
                d={DROP}
                fill={ink.paper}
                stroke={ink.ink}
                strokeWidth={1.5}
              />
            );
          case 'return':
            return <path key={i} transform={`translate(${at} ${top - 8})`} d={WEDGE} fill={ink.ink} />;
          case 'say':
          case 'look':
            return <path key={i} d={`M${at} ${foot}v-10`} stroke={ink.ink} strokeWidth={2} />;
          default:
            return p.burnt ? <circle key={i} cx={at} cy={foot - 4} r={3.4} fill={ink.scorch} /> : null;
        }
      })}
    </g>
  );
}
