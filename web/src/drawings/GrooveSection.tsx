/** A groove from its end, at true scale: the piece in it, the bottom that the tool leaves, and each pass. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { GrooveWay, Units } from '../api/types';
import { formatSetting, formatThin } from '../measure/format';
import { useSize } from './useSize';
import { ink } from './ink';
import { Label, widthOf } from './Label';

interface Props {
  way: GrooveWay;
  width: number; // that is wanted, in millimetres
  depth: number;
  piece: number;
  stock: number; // thickness of the work
  rabbet?: boolean; // it lies at the edge: there is no near wall
  units: Units;
}

export function GrooveSection(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  return <Box ref={ref}>{width > 0 && <Drawing {...p} px={width} />}</Box>;
}

function Drawing({ way, width, depth, piece, stock, rabbet, units, px }: Props & { px: number }) {
  const height = 196;
  const scale = Math.min((px - 150) / (width * 1.9), 96 / Math.min(depth + 3, 60));
  const middle = px / 2;
  const top = 78; // the face of the work
  const X = (mm: number) => middle + mm * scale;
  const Y = (mm: number) => top + mm * scale;
  const made = way.width_mm ?? width;
  const half = made / 2;
  const bottom = way.bottom_mm.map(([x = 0, z = 0]) => `${X(x)} ${Y(depth - z)}`).join('L');
  const below = Math.min(Y(stock), height);
  const left = rabbet ? X(-half) : 0; // where the work begins
  const deepest = Y(depth - (way.bottom_mm[0]?.[1] ?? 0));
  const line = { stroke: ink.hair, strokeWidth: 1, fill: 'none' };
  const gap = Math.max(0, (made - piece) / 2);
  // Passes lie closer than their numbers are wide where a thin kerf makes a wide groove.
  const step =
    way.passes.length > 1 ? Math.abs(way.passes[1]!.centre_mm - way.passes[0]!.centre_mm) * scale : 0;
  const every = Math.max(1, Math.ceil(20 / Math.max(1, step)));
  const deep = t`${formatSetting(depth, units)} deep`;
  return (
    <svg
      width={px}
      height={height}
      role="img"
      aria-label={t`The ${rabbet ? t`rabbet` : t`groove`}, seen from its end, ${formatThin(made, units)} wide and ${formatSetting(depth, units)} deep: ${way.flat_for}`}
      style={{ display: 'block' }}
    >
      <path d={`M${left} ${top}H${px}V${below}H${left}Z`} fill={ink.wood} />
      <path d={`M${X(-half) - 1} ${top - 1}V${deepest}L${bottom}V${top - 1}Z`} fill={ink.sheet} />
      <path
        d={`${rabbet ? `M${left} ${below}V${deepest}` : `M0 ${top}H${X(-half)}V${deepest}`}L${bottom}L${X(half)} ${top}H${px}`}
        stroke={ink.ink}
        strokeWidth={1.6}
        fill="none"
        strokeLinejoin="round"
      />
      {stock * scale < height - top - 4 && (
        <path d={`M${left} ${below}H${px}`} stroke={ink.ink} strokeWidth={1.6} />
      )}
      <rect
        x={X(-half + gap)}
        y={30}
        width={piece * scale}
        height={Math.max(0, Y(depth - way.ridge_mm) - 30)}
        fill={ink.grain}
        fillOpacity={0.45}
        stroke={ink.ink}
        strokeDasharray="5 4"
      />
      {way.passes.length > 1 &&
        way.passes.map((p, i) => (
          <g key={p.fence_mm}>
            {i > 0 && (
              <path
                d={`M${X(p.centre_mm - (way.kerf_mm ?? 0) / 2)} ${Y(0)}V${Y(depth)}`}
                {...line}
                strokeDasharray="2 3"
              />
            )}
            {i % every === 0 && (
              <Label x={X(p.centre_mm)} y={Y(depth) + 14} size={13}>
                {String(i + 1)}
              </Label>
            )}
          </g>
        ))}
      <path d={`M${X(-half)} 62H${X(half)}M${X(-half)} 55v14M${X(half)} 55v14`} {...line} />
      <Label x={middle} y={62} size={16}>
        {formatThin(made, units)}
      </Label>
      <Label x={middle} y={18} size={14}>
        {t`piece ${formatThin(piece, units)}`}
      </Label>
      <path
        d={`M${X(half) + 26} ${Y(0)}V${Y(depth)}M${X(half) + 19} ${Y(depth)}h14M${X(half) + 19} ${Y(0)}h14`}
        {...line}
      />
      <Label x={Math.min(X(half) + 40, px - widthOf(deep, 15))} y={Y(depth / 2)} anchor="start" size={15}>
        {deep}
      </Label>
      {way.ridge_mm > 0.01 && (
        <Label x={X(-half) - 12} y={Y(depth)} anchor="end" size={14}>
          {t`leaves ${formatThin(way.ridge_mm, units)}`}
        </Label>
      )}
    </svg>
  );
}
