/** What two ways to own a blade have cost, against the metres cut: steps, because an edge is paid for when it is begun. */
import type { Money, Units } from '../api/types';
import { formatRun, trim } from '../measure/format';
import { ink } from './ink';

const W = 720;
const H = 260;
const L = 52;
const B = 34;

export function CostChart({ money: m, units }: { money: Money; units: Units }) {
  const most = m.line.at(-1)![0]!;
  const top = Math.max(...m.line.map((p) => Math.max(p[1]!, p[2]!)));
  const X = (v: number) => L + ((W - L - 120) * v) / most;
  const Y = (v: number) => H - B - ((H - B - 14) * v) / top;
  const path = (k: 1 | 2) =>
    m.line
      .map(
        (p, i) => `${i === 0 ? 'M' : 'H'}${X(p[0]!).toFixed(1)}${i === 0 ? ' ' : 'V'}${Y(p[k]!).toFixed(1)}`,
      )
      .join('');
  const last = m.line.at(-1)!;
  // The two names must not lie on each other.
  const apart = Math.abs(Y(last[1]!) - Y(last[2]!)) < 16;
  const shift = apart ? (last[1]! > last[2]! ? -9 : 9) : 0;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      style={{ maxWidth: W, display: 'block' }}
      role="img"
      aria-label={`Cost against metres: sharpened ${trim(last[1]!, 0)}, cheap ones ${trim(last[2]!, 0)} after ${formatRun(most, units)}`}
    >
      {[0, 0.25, 0.5, 0.75, 1].map((s) => (
        <g key={s}>
          <text x={X(most * s)} y={H - 10} fontSize={13} textAnchor="middle" fill={ink.mark}>
            {formatRun(most * s, units)}
          </text>
          <path d={`M${L} ${Y(top * s)}H${X(most)}`} stroke={ink.hair} strokeDasharray="1 5" />
          <text
            x={L - 8}
            y={Y(top * s)}
            fontSize={13}
            textAnchor="end"
            dominantBaseline="central"
            fill={ink.mark}
          >
            {trim(top * s, 0)}
          </text>
        </g>
      ))}
      {m.pays_from_m !== undefined && (
        <path d={`M${X(m.pays_from_m)} 8V${H - B}`} stroke={ink.ink} strokeDasharray="6 4" />
      )}
      <path d={path(2)} fill="none" stroke={ink.hair} strokeWidth={2.5} strokeDasharray="3 4" />
      <path d={path(1)} fill="none" stroke={ink.ink} strokeWidth={2.5} />
      <text
        x={X(most) + 8}
        y={Y(last[1]!) + shift}
        fontSize={14}
        fontWeight={650}
        dominantBaseline="central"
        fill={ink.ink}
      >
        sharpened
      </text>
      <text x={X(most) + 8} y={Y(last[2]!) - shift} fontSize={14} dominantBaseline="central" fill={ink.mark}>
        cheap ones
      </text>
    </svg>
  );
}
