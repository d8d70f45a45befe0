/** How a figure has drifted: its readings over time, on the band that it is held to. */
import { t } from '@lingui/core/macro';
import type { TruingRecord, Units } from '../api/types';
import { formatFigure } from '../measure/format';
import { ink } from './ink';

interface Props {
  history: TruingRecord[]; // newest first
  units: Units;
}

export function HistoryChart({ history, units }: Props) {
  const [w, h, pad] = [214, 56, 8];
  const rows = [...history].reverse();
  const values = rows.map((r) => r.figure);
  const last = rows.at(-1)!;
  const lo = Math.min(...values, last.low, 0);
  const hi = Math.max(...values, last.high);
  const times = rows.map((r) => new Date(r.at).getTime());
  const [t0, t1] = [times[0]!, times.at(-1)!];
  const X = (it: number) => pad + ((w - 70 - pad) * (it - t0)) / Math.max(1, t1 - t0);
  const Y = (v: number) => h - pad - ((h - 2 * pad) * (v - lo)) / Math.max(1e-9, hi - lo);
  const show = (v: number) => formatFigure(v, last.figure_unit, units);
  return (
    <svg
      width={w}
      height={h}
      style={{ maxWidth: '100%', display: 'block' }}
      role="img"
      aria-label={t`${rows.length} readings, last ${show(last.figure)}`}
    >
      <rect
        x={pad}
        y={Y(last.high)}
        width={w - 70 - pad}
        height={Y(last.low) - Y(last.high)}
        fill={ink.grain}
        fillOpacity={0.28}
      />
      <path d={`M${pad} ${Y(0)}H${w - 70}`} stroke={ink.hair} strokeDasharray="2 4" />
      <path
        d={`M${rows.map((r, i) => `${X(times[i]!)} ${Y(r.figure)}`).join('L')}`}
        fill="none"
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      {rows.map((r, i) => (
        <circle key={r.id} cx={X(times[i]!)} cy={Y(r.figure)} r={3.2} fill={ink.ink} />
      ))}
      <text
        x={w - 62}
        y={Y(last.figure)}
        dominantBaseline="central"
        fontSize={13}
        fill={ink.ink}
        fontWeight={600}
      >
        {show(last.figure)}
      </text>
    </svg>
  );
}
