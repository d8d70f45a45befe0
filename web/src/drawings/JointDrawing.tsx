/** Tenon, box joint, tails, sloping groove or fold, drawn to scale from what was worked out for it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { JointAsk, JointPlan, Units } from '../api/types';
import { fixed, formatSetting, formatThin } from '../measure/format';
import { useSize } from './useSize';
import { ink } from './ink';
import { Label } from './Label';

interface Props {
  ask: JointAsk;
  plan: JointPlan;
  units: Units;
}

const HEIGHT = 240;
const wood = { fill: ink.wood, stroke: ink.ink, strokeWidth: 1.6, strokeLinejoin: 'round' as const };
const hair = { stroke: ink.hair, fill: 'none', strokeWidth: 1 };

export function JointDrawing(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const Kind = kinds[p.plan.kind];
  return (
    <Box ref={ref} sx={{ minHeight: HEIGHT }}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={t`Drawn to scale: ${p.plan.do.join(' ')}`}
          style={{ display: 'block' }}
        >
          <Kind {...p} px={width} />
        </svg>
      )}
    </Box>
  );
}

type Sized = Props & { px: number };

/** From the side: the shoulder first, then outward. */
function Tenon({ ask, plan, units, px }: Sized) {
  const stock = ask.stock_mm ?? 20;
  const long = ask.length_mm ?? 30;
  const [first = 0, other = 0] = plan.heights_mm ?? [];
  const scale = Math.min((px - 60) / (long * 2.4), 150 / stock);
  const x = px / 2 - long * 0.2 * scale;
  const y = 44;
  const end = x + long * scale;
  const thick = stock - first - other;
  return (
    <>
      <path
        d={`M20 ${y}H${x}V${y + first * scale}H${end}V${y + (first + thick) * scale}H${x}V${y + stock * scale}H20`}
        {...wood}
      />
      <path
        d={`M${x} ${y}H${end}V${y + first * scale}M${x} ${y + stock * scale}H${end}V${y + (first + thick) * scale}`}
        {...hair}
        strokeDasharray="4 4"
      />
      {plan.stops_mm?.map((s, i) => {
        const at = end - (long - (long - s)) * scale;
        return (
          <g key={s}>
            <rect
              x={at}
              y={y + stock * scale - other * scale}
              width={plan.kerf_mm * scale}
              height={other * scale}
              fill={ink.steel}
              fillOpacity={0.55}
              stroke={ink.accent}
              strokeWidth={0.9}
            />
            {(i === 0 || plan.kerf_mm * scale > 15) && (
              <Label x={at + (plan.kerf_mm * scale) / 2} y={y + stock * scale + 16} size={13}>
                {String(i + 1)}
              </Label>
            )}
          </g>
        );
      })}
      <Label x={(x + end) / 2} y={y + (first + thick / 2) * scale} size={16}>
        {formatThin(thick, units)}
      </Label>
      <Label x={(x + end) / 2} y={22} size={14}>
        {t`${formatSetting(long, units)} long`}
      </Label>
      <Label x={end + 10} y={y + (first * scale) / 2} size={14} anchor="start">
        {t`${formatSetting(first, units)} high`}
      </Label>
      <Label x={end + 10} y={y + (stock - other / 2) * scale} size={14} anchor="start">
        {t`${formatSetting(other, units)} high`}
      </Label>
    </>
  );
}

/** The end of the first board: fingers and slots from its edge on the key. */
function BoxJoint({ ask, plan, units, px }: Sized) {
  const width = ask.width_mm ?? 100;
  const slot = plan.slot_mm ?? 6;
  const finger = plan.offset_mm ?? 6;
  const deep = ask.stock_mm && ask.stock_mm > 0 ? ask.stock_mm : 12;
  const scale = Math.min((px - 40) / width, 110 / deep);
  const left = (px - width * scale) / 2;
  const y = 60;
  let d = `M${left} ${y + 130}V${y}`;
  for (let i = 0, x = 0; i < (plan.slots ?? 0); i++) {
    x += finger;
    const to = Math.min(width, x + slot);
    d += `H${left + x * scale}V${y + deep * scale}H${left + to * scale}${to < width ? `V${y}` : ''}`;
    x = to;
  }
  d += `H${left + width * scale}V${y + 130}`;
  return (
    <>
      <path d={d} {...wood} />
      <path
        d={`M${left} 46h${finger * scale}M${left} 40v12M${left + finger * scale} 40v12M${left + (finger + slot) * scale} 40v12M${left + finger * scale} 46h${slot * scale}`}
        {...hair}
      />
      <Label x={left + (finger + slot) * scale + 8} y={34} anchor="start" size={14}>
        {t`finger ${formatThin(finger, units)}, slot ${formatThin(slot, units)}`}
      </Label>
      <Label x={px / 2} y={y + 112} size={14}>
        {t`${formatSetting(width, units)} wide, ${plan.slots ?? 0} slots`}
      </Label>
    </>
  );
}

/** A board on end: the blade tilted, its teeth flat on the base line. */
function Tails({ plan, units, px }: Sized) {
  const up = plan.height_mm ?? 19;
  const tilt = plan.tilt_deg ?? 8;
  const scale = 130 / up;
  const y = 190;
  const lean = Math.tan((tilt * Math.PI) / 180) * up * scale;
  const kerf = plan.kerf_mm * scale;
  const tail = Math.max(70, up * scale * 0.9);
  const one = (x: number) =>
    `M${x} ${y - up * scale}L${x - lean} ${y}h${tail + 2 * lean}L${x + tail} ${y - up * scale}`;
  const xs = [px / 2 - tail * 1.7, px / 2 + tail * 0.7];
  return (
    <>
      <path d={`M30 ${y - up * scale}V20H${px - 30}V${y - up * scale}`} {...wood} strokeDasharray="none" />
      {xs.map((x) => (
        <path key={x} d={`${one(x)}Z`} {...wood} />
      ))}
      <path
        d={`M${xs[0]! + tail} ${y - up * scale}l${lean} ${up * scale}h${kerf}l${-lean} ${-up * scale}Z`}
        fill={ink.steel}
        stroke={ink.accent}
        strokeWidth={1.4}
      />
      <path d={`M16 ${y}H${px - 16}`} stroke={ink.ink} strokeWidth={3} />
      <path d={`M30 ${y - up * scale}H${px - 30}`} {...hair} strokeDasharray="6 4" />
      <Label x={px / 2 + 8} y={y + 20} size={15}>
        {t`tilted ${fixed(tilt, 1)}°, ${formatSetting(up, units)} to the baseline`}
      </Label>
    </>
  );
}

/** The section of a sloping groove: its stairs under the slope. */
function Slope({ ask, plan, units, px }: Sized) {
  const width = ask.width_mm ?? 12;
  const deep = ask.depth_mm ?? 8;
  const scale = Math.min((px - 120) / (width * 1.6), 150 / deep);
  const middle = px / 2;
  const y = 40;
  const half = width / 2;
  const passes = plan.passes ?? [];
  const rise = Math.tan(((ask.slope_deg ?? 0) * Math.PI) / 180) * width;
  const X = (mm: number) => middle + mm * scale;
  return (
    <>
      <path d={`M0 ${y}H${px}V${HEIGHT}H0Z`} fill={ink.wood} />
      {passes.map((p) => (
        <rect
          key={p.fence_mm}
          x={X(p.centre_mm - plan.kerf_mm / 2)}
          y={y - 1}
          width={plan.kerf_mm * scale}
          height={p.height_mm * scale}
          fill={ink.sheet}
        />
      ))}
      <path d={`M0 ${y}H${X(-half)}M${X(half)} ${y}H${px}`} stroke={ink.ink} strokeWidth={1.6} />
      <path
        d={`M${X(-half)} ${y}V${y + deep * scale}L${X(half)} ${y + (deep - rise) * scale}V${y}`}
        fill="none"
        stroke={ink.accent}
        strokeWidth={1.8}
      />
      {passes.map((p, i) => (
        <Label key={p.fence_mm} x={X(p.centre_mm)} y={y + p.height_mm * scale + 16} size={12.5}>
          {`${i + 1}`}
        </Label>
      ))}
      <Label x={middle} y={20} size={14}>
        {t`${formatSetting(width, units)} wide, ${formatSetting(deep, units)} at the near side`}
      </Label>
    </>
  );
}

/** A strip of the sheet, flat: kerfs from below, a skin above. */
function Fold({ ask, plan, units, px }: Sized) {
  const sheet = ask.stock_mm ?? 12;
  const skin = plan.skin_mm ?? 2;
  const spacing = plan.spacing_mm ?? 20;
  const shown = Math.min(plan.kerfs ?? 1, 8);
  const scale = Math.min((px - 40) / (spacing * (shown + 1)), 120 / sheet);
  const left = (px - spacing * (shown + 1) * scale) / 2;
  const y = 50;
  // Bent, at a scale of its own: the outer face, the inner one, and the kerfs closed.
  const radius = ask.radius_mm ?? 150;
  const small = Math.min(76 / radius, 120 / radius);
  const turn = ((ask.bend_deg ?? 90) * Math.PI) / 180;
  const on = (r: number, a: number) =>
    `${px * 0.62 + r * small * Math.sin(a)} ${232 - r * small * Math.cos(a)}`;
  const wide = turn > Math.PI ? 1 : 0;
  return (
    <>
      <rect x={left} y={y} width={spacing * (shown + 1) * scale} height={sheet * scale} {...wood} />
      {Array.from({ length: shown }, (_, i) => (
        <rect
          key={i}
          x={left + (i + 1) * spacing * scale - (plan.kerf_mm * scale) / 2}
          y={y + skin * scale}
          width={plan.kerf_mm * scale}
          height={(sheet - skin) * scale + 2}
          fill={ink.sheet}
          stroke={ink.ink}
          strokeWidth={1.2}
        />
      ))}
      <path
        d={`M${left + spacing * scale} ${y + sheet * scale + 22}h${spacing * scale}m0 -7v14m${-spacing * scale} -14v14`}
        {...hair}
      />
      <Label x={left + 1.5 * spacing * scale} y={y + sheet * scale + 40} size={14}>
        {formatSetting(spacing, units)}
      </Label>
      {turn <= Math.PI && (
        <>
          <path
            d={`M${on(radius, -turn / 2)}A${radius * small} ${radius * small} 0 ${wide} 1 ${on(radius, turn / 2)}L${on(radius - sheet, turn / 2)}A${(radius - sheet) * small} ${(radius - sheet) * small} 0 ${wide} 0 ${on(radius - sheet, -turn / 2)}Z`}
            {...wood}
          />
          {Array.from({ length: plan.kerfs ?? 0 }, (_, i) => {
            const a = turn * ((i + 0.5) / (plan.kerfs ?? 1) - 0.5);
            return (
              <path
                key={i}
                d={`M${on(radius - skin, a)}L${on(radius - sheet, a)}`}
                stroke={ink.ink}
                strokeWidth={1.2}
              />
            );
          })}
          <Label x={px * 0.62} y={228} size={14}>
            {t`radius ${formatSetting(radius, units)}`}
          </Label>
        </>
      )}
      <Label x={px / 2} y={26} size={14}>
        {[
          t`${plan.kerfs ?? 0} kerfs, ${formatThin(skin, units)} left`,
          shown < (plan.kerfs ?? 0) && t`${shown} drawn`,
        ]
          .filter(Boolean)
          .join(', ')}
      </Label>
    </>
  );
}

const kinds = { tenon: Tenon, box: BoxJoint, tails: Tails, slope: Slope, fold: Fold } as const;
