/**
 * The kerf from the end, much larger than life: plate, tips and side clearance,
 * and the bottom that this grind leaves where the cut does not go through.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Blade, Cut, Units } from '../api/types';
import { formatSetting, formatThin, trim } from '../measure/format';
import { useSize } from './useSize';
import { ink } from './ink';
import { Label } from './Label';

interface Props {
  blade: Blade; // with its groove's profile
  cut: Pick<Cut, 'form' | 'depth_mm' | 'bevel_deg'>;
  units: Units;
}

const formWords = { groove: t`groove`, rabbet: t`rabbet`, cheek: t`tenon cheek`, fold: t`fold` } as const;

export function EndView(p: Props) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const form = p.cut.form && p.cut.form !== 'through' ? formWords[p.cut.form] : 'groove';
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%', minHeight: 0 }}>
      <Box sx={{ fontSize: 15, pt: 0.5 }}>
        <b>{t`As a ${form}:`}</b> {p.blade.groove.flat_enough_for}.
      </Box>
      <Box ref={ref} sx={{ flex: 1, minHeight: 0, overflow: 'hidden' }}>
        {width > 0 && height > 0 && <Drawing {...p} width={width} height={height} />}
      </Box>
    </Box>
  );
}

function Drawing({ blade, cut, units, width, height }: Props & { width: number; height: number }) {
  const kerf = blade.kerf_mm;
  const plate = blade.plate_mm ?? kerf * 0.7;
  // The groove's own depth, where it is not too deep to be seen so large.
  const asked = cut.depth_mm;
  const groove = asked !== undefined && asked < 3 * kerf ? asked : kerf * 1.25;
  const broken = asked !== undefined && groove !== asked;
  const tilt = cut.bevel_deg ?? 0;
  const scale = Math.min(width / (kerf * 5.2), (height - 40) / (groove + kerf * 1.35));
  const middle = width / 2;
  const top = height - 26 - (groove + kerf * 0.55) * scale;
  const X = (mm: number) => middle + mm * scale;
  const Y = (mm: number) => top + mm * scale; // down from the face of the work
  const half = kerf / 2;
  const bottom = (blade.groove.profile_mm ?? [])
    .map(([x = 0, z = 0]) => `${X(x)} ${Y(groove - z)}`)
    .join('L');
  const over = Y(-kerf); // the open end of the kerf, above the face even when tilted
  const kerfPath = `M${X(-half)} ${over}V${Y(groove)}L${bottom}L${X(half)} ${Y(groove)}V${over}Z`;
  const tips = `M${bottom}L${X(half - 0.06)} ${Y(groove - kerf * 0.8)}H${X(plate / 2)}V${Y(-2 * kerf)}H${X(-plate / 2)}V${Y(groove - kerf * 0.8)}H${X(-half + 0.06)}Z`;
  const line = { stroke: ink.hair, strokeWidth: 1, fill: 'none' };
  const figure = (x: number, y: number, text: string, anchor: 'start' | 'middle' | 'end' = 'middle') => (
    <Label x={x} y={y - 5} anchor={anchor} size={15}>
      {text}
    </Label>
  );
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={t`Kerf of ${blade.name}, seen from the end: ${blade.groove.flat_enough_for}`}
      style={{ display: 'block' }}
    >
      <path d={`M0 ${Y(0)}H${width}V${height}H0Z`} fill={ink.wood} />
      <g transform={`rotate(${tilt} ${middle} ${Y(0)})`}>
        <path d={kerfPath} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.6} />
      </g>
      <rect x={0} y={0} width={width} height={Y(0)} fill={ink.sheet} />
      <path d={`M0 ${Y(0)}H${X(-half)}M${X(half)} ${Y(0)}H${width}`} stroke={ink.ink} strokeWidth={1.6} />
      <g transform={`rotate(${tilt} ${middle} ${Y(0)})`}>
        <path
          d={tips}
          fill={ink.steel}
          fillOpacity={0.9}
          stroke={ink.ink}
          strokeWidth={1.4}
          strokeLinejoin="round"
        />
      </g>
      {tilt === 0 && (
        <>
          <path
            d={`M${X(-half)} ${Y(groove) + 14}H${X(half)}M${X(-half)} ${Y(groove) + 7}v14M${X(half)} ${Y(groove) + 7}v14`}
            {...line}
          />
          <path
            d={`M${X(-plate / 2)} 30H${X(plate / 2)}M${X(-plate / 2)} 23v14M${X(plate / 2)} 23v14`}
            {...line}
          />
        </>
      )}
      {figure(
        middle,
        Y(groove) + 34 > height - 4 ? height - 6 : Y(groove) + 34,
        t`kerf ${formatThin(kerf, units)}`,
      )}
      {figure(
        X(-plate / 2) - 12,
        35,
        blade.plate_mm ? t`plate ${formatThin(plate, units)}` : t`plate not measured`,
        'end',
      )}
      {tilt > 0 && figure(X(half) + 40, Math.min(35, Y(0) - 36), t`tilted ${trim(tilt, 1)}°`, 'start')}
      {blade.side_clearance_mm !== undefined &&
        width > 480 &&
        figure(
          X(half) + 12,
          Y(0) - 12,
          t`${formatThin(blade.side_clearance_mm, units)} clearance per side`,
          'start',
        )}
      {blade.groove.ridge_mm > 0.01 &&
        figure(X(-half) - 12, Y(groove) - 4, t`leaves ${formatThin(blade.groove.ridge_mm, units)}`, 'end')}
      {asked !== undefined &&
        figure(
          X(half) + 12,
          Y(groove / 2),
          [t`${formatSetting(asked, units)} deep`, broken && t`drawn shorter`].filter(Boolean).join(', '),
          'start',
        )}
    </svg>
  );
}
