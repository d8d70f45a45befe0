/**
 * The kerf from the end, much larger than life: plate, tips and side clearance,
 * and the bottom that this grind would leave in a groove.
 */
import Box from '@mui/material/Box';
import type { Blade, Units } from '../api/types';
import { formatThin } from '../measure/format';
import { useSize } from '../ui/useSize';
import { ink } from './ink';

interface Props {
  blade: Blade;
  units: Units;
}

export function EndView(p: Props) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%', minHeight: 0 }}>
      <Box sx={{ fontSize: 15, pt: 0.5 }}>
        <b>As a groove:</b> {p.blade.groove.flat_enough_for}.
      </Box>
      <Box ref={ref} sx={{ flex: 1, minHeight: 0, overflow: 'hidden' }}>
        {width > 0 && height > 0 && <Drawing {...p} width={width} height={height} />}
      </Box>
    </Box>
  );
}

function Drawing({ blade, units, width, height }: Props & { width: number; height: number }) {
  const kerf = blade.kerf_mm;
  const plate = blade.plate_mm ?? kerf * 0.7;
  const groove = kerf * 1.25; // as deep as it needs to be for the picture
  const scale = Math.min(width / (kerf * 5.2), (height - 40) / (kerf * 2.6));
  const middle = width / 2;
  const top = height - 26 - (groove + kerf * 0.55) * scale;
  const X = (mm: number) => middle + mm * scale;
  const Y = (mm: number) => top + mm * scale; // down from the face of the work
  const half = kerf / 2;
  const bottom = blade.groove.profile_mm.map(([x = 0, z = 0]) => `${X(x)} ${Y(groove - z)}`).join('L');
  const wood = `M0 ${Y(0)}H${X(-half)}L${bottom}L${X(half)} ${Y(0)}H${width}V${height}H0Z`;
  const tips = `M${bottom}L${X(half - 0.06)} ${Y(groove - kerf * 0.8)}H${X(plate / 2)}V0H${X(-plate / 2)}V${Y(groove - kerf * 0.8)}H${X(-half + 0.06)}Z`;
  const line = { stroke: ink.hair, strokeWidth: 1, fill: 'none' };
  const figure = (x: number, y: number, text: string, anchor: 'start' | 'middle' | 'end' = 'middle') => (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={15}
      fontWeight={500}
      fill={ink.ink}
      stroke={ink.sheet}
      strokeWidth={5}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`The kerf of ${blade.name} from the end: ${blade.groove.flat_enough_for}`}
      style={{ display: 'block' }}
    >
      <path d={wood} fill={ink.wood} stroke={ink.ink} strokeWidth={1.6} />
      <path
        d={tips}
        fill={ink.steel}
        fillOpacity={0.9}
        stroke={ink.ink}
        strokeWidth={1.4}
        strokeLinejoin="round"
      />
      <path
        d={`M${X(-half)} ${Y(groove) + 14}H${X(half)}M${X(-half)} ${Y(groove) + 7}v14M${X(half)} ${Y(groove) + 7}v14`}
        {...line}
      />
      {figure(
        middle,
        Y(groove) + 34 > height - 4 ? height - 6 : Y(groove) + 34,
        `kerf ${formatThin(kerf, units)}`,
      )}
      <path
        d={`M${X(-plate / 2)} 30H${X(plate / 2)}M${X(-plate / 2)} 23v14M${X(plate / 2)} 23v14`}
        {...line}
      />
      {figure(
        X(-plate / 2) - 12,
        35,
        blade.plate_mm ? `plate ${formatThin(plate, units)}` : 'plate not measured',
        'end',
      )}
      {blade.side_clearance_mm !== undefined &&
        figure(
          X(half) + 12,
          Y(0) - 12,
          `clears by ${formatThin(blade.side_clearance_mm, units)} a side`,
          'start',
        )}
      {blade.groove.ridge_mm > 0.01 &&
        figure(X(-half) - 12, Y(groove) - 4, `leaves ${formatThin(blade.groove.ridge_mm, units)}`, 'end')}
    </svg>
  );
}
