/** How a figure has drifted: its readings over time, on the band that the saw is held to. */
import type { Saw, TruingRecord, TruingTest, Units } from '../api/types';
import { formatDial, trim } from '../measure/format';
import { ink } from './ink';

interface Props {
  history: TruingRecord[]; // newest first
  saw: Saw;
  test: TruingTest;
  units: Units;
}

/** What the saw is held to in a figure's own unit, where the saw says so. */
function bandOf(saw: Saw, test: TruingTest): [number, number] | undefined {
  const t = saw.tolerances;
  switch (test) {
    case 'heel':
      return [-(t?.heel_act_mm ?? 0.1), t?.heel_act_mm ?? 0.1];
    case 'fence':
      return [0, t?.fence_open_mm ?? 0.1];
    case 'runout':
      return [0, t?.runout_act_mm ?? 0.15];
    case 'tilt':
      return [-(t?.tilt_deg ?? 0.1), t?.tilt_deg ?? 0.1];
    case 'gauge':
      return [-(t?.gauge_deg ?? 0.05), t?.gauge_deg ?? 0.05];
    default:
      return undefined;
  }
}

export function HistoryChart({ history, saw, test, units }: Props) {
  const [w, h, pad] = [280, 84, 12];
  const rows = [...history].reverse();
  const band = bandOf(saw, test);
  const values = rows.map((r) => r.figure);
  const lo = Math.min(...values, band?.[0] ?? 0, 0);
  const hi = Math.max(...values, band?.[1] ?? 0);
  const times = rows.map((r) => new Date(r.at).getTime());
  const [t0, t1] = [times[0]!, times.at(-1)!];
  const X = (t: number) => pad + ((w - 70 - pad) * (t - t0)) / Math.max(1, t1 - t0);
  const Y = (v: number) => h - pad - ((h - 2 * pad) * (v - lo)) / Math.max(1e-9, hi - lo);
  const show = (v: number) => (rows[0]!.figure_unit === 'deg' ? `${trim(v, 2)}°` : formatDial(v, units));
  const last = rows.at(-1)!;
  return (
    <svg
      width={w}
      height={h}
      style={{ maxWidth: '100%', display: 'block' }}
      role="img"
      aria-label={`${rows.length} readings, the last ${show(last.figure)}`}
    >
      {band && (
        <rect
          x={pad}
          y={Y(band[1])}
          width={w - 70 - pad}
          height={Y(band[0]) - Y(band[1])}
          fill={ink.grain}
          fillOpacity={0.28}
        />
      )}
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
