/** A figure on a short scale: the band that is held good, the last reading as a mark that fades once it is not to be trusted. */
import { t } from '@lingui/core/macro';
import type { Units } from '../api/types';
import { formatFigure } from '../measure/format';
import { ink } from './ink';

interface Props {
  figure: number | undefined; // left out if never measured
  unit: 'mm' | 'deg';
  low: number;
  high: number;
  doubtful: boolean;
  units: Units;
}

const W = 210;
const H = 40;

export function ShortScale({ figure, unit, low, high, doubtful, units }: Props) {
  const reach = 1.35 * Math.max(Math.abs(low), Math.abs(high), Math.abs(figure ?? 0), 1e-6);
  const from = low < 0 ? -reach : -reach * 0.12;
  const X = (v: number) => 8 + ((W - 16) * (v - from)) / (reach - from);
  return (
    <svg
      width={W}
      height={H}
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={
        figure === undefined
          ? t`held to ${formatFigure(high, unit, units)}`
          : t`${formatFigure(figure, unit, units)}, held to ${formatFigure(high, unit, units)}`
      }
      style={{ maxWidth: '100%', display: 'block' }}
    >
      <rect x={X(low)} y={10} width={X(high) - X(low)} height={12} fill={ink.grain} fillOpacity={0.4} />
      <path d={`M8 22H${W - 8}M${X(low)} 6V26M${X(high)} 6V26`} stroke={ink.hair} fill="none" />
      <path d={`M${X(0)} 18v8`} stroke={ink.ink} strokeWidth={1.6} />
      <text x={Math.min(X(high), W - 30)} y={37} fontSize={13} textAnchor="middle" fill={ink.mark}>
        {formatFigure(high, unit, units)}
      </text>
      {figure !== undefined && (
        <path
          d={`M${X(figure)} 4L${X(figure) + 7} -7L${X(figure) - 7} -7Z`}
          transform="translate(0 10)"
          fill={ink.ink}
          fillOpacity={doubtful ? 0.3 : 1}
          stroke={ink.ink}
        />
      )}
    </svg>
  );
}
