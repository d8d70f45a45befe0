/** A blade as the drawing of its page: its own teeth, with the numbers that tell it apart as dimensions on it. */
import { t } from '@lingui/core/macro';
import type { Blade, Units } from '../api/types';
import { formatLength, formatThin, trim } from '../measure/format';
import { ink } from './ink';
import { Label } from './Label';
import { Plate } from './Plate';

const W = 440;
const H = 400;
const R = 150; // px, whatever the blade's own size
const C = { x: 178, y: 176 };

interface Props {
  blade: Blade;
  units: Units;
}

export function BladeHero({ blade: b, units }: Props) {
  const s = R / (b.diameter_mm / 2);
  const edge = Math.min(1, b.condition.wear_share);
  const pitchy = Math.min(1, b.condition.pitch_level / 3);
  const round = 2 * Math.PI * (R + 12);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={t`${b.name}: ${formatLength(b.diameter_mm, units)} diameter, ${formatThin(b.kerf_mm, units)} kerf`}
      style={{ display: 'block', width: '100%', maxWidth: W, height: 'auto' }}
    >
      {/* round it: edge used up in ink, pitch in brown, each from the top clockwise */}
      <g transform={`translate(${C.x} ${C.y}) rotate(-90)`} fill="none">
        <circle r={R + 12} stroke={ink.hair} strokeOpacity={0.4} />
        <circle r={R + 12} stroke={ink.ink} strokeWidth={5} strokeDasharray={`${edge * round} ${round}`} />
        <circle
          r={R + 19}
          stroke={ink.scorch}
          strokeWidth={5}
          strokeDasharray={`${pitchy * 2 * Math.PI * (R + 19)} ${2 * Math.PI * (R + 19)}`}
        />
      </g>
      <g transform={`translate(${C.x} ${C.y}) scale(${s})`}>
        <Plate shape={b} scale={s} pitch={pitchy} line={1.4} />
      </g>
      <Label x={C.x} y={C.y + (b.bore_mm / 2) * s + 18} size={15}>
        {t`bore ${formatLength(b.bore_mm, units)}`}
      </Label>
      {b.teeth > 0 && (
        <Label x={C.x} y={C.y - 76} size={16}>
          {t`${b.teeth} teeth, ${formatLength(b.pitch_mm, units)} spacing`}
        </Label>
      )}
      {/* the diameter, under it */}
      <g stroke={ink.hair} fill="none">
        <path d={`M${C.x - R} ${C.y + 30}V${H - 26}M${C.x + R} ${C.y + 30}V${H - 26}`} strokeOpacity={0.7} />
        <path d={`M${C.x - R} ${H - 32}H${C.x + R}`} />
        <path d={`M${C.x - R + 8} ${H - 36}l-8 4l8 4M${C.x + R - 8} ${H - 36}l8 4l-8 4`} stroke={ink.ink} />
      </g>
      <Label x={C.x} y={H - 32} size={16}>
        {formatLength(b.diameter_mm, units)}
      </Label>
      {b.teeth > 0 && <Hook blade={b} />}
      <EndOn blade={b} units={units} />
    </svg>
  );
}

/** The hook at the topmost tooth: its face against the line to the centre. */
function Hook({ blade: b }: { blade: Blade }) {
  const long = 46;
  const lean = (b.hook_deg * Math.PI) / 180;
  const tip = { x: C.x, y: C.y - R };
  return (
    <g>
      <path d={`M${tip.x} ${tip.y}V${tip.y + long}`} stroke={ink.hair} strokeDasharray="4 3" />
      <path
        d={`M${tip.x} ${tip.y}L${tip.x + long * Math.sin(lean)} ${tip.y + long * Math.cos(lean)}`}
        stroke={ink.accent}
        strokeWidth={2}
      />
      <Label x={tip.x + (b.hook_deg < 0 ? 44 : -44)} y={tip.y + 34} size={15}>
        {b.hook_known ? t`hook ${trim(b.hook_deg, 1)}°` : t`hook ${trim(b.hook_deg, 1)}°?`}
      </Label>
    </g>
  );
}

/** Plate and kerf seen end on, ten times as large as life or as large as there is room for. */
function EndOn({ blade: b, units }: { blade: Blade; units: Units }) {
  const k = Math.min(10, 52 / b.kerf_mm);
  const x = 396;
  const top = 92;
  const kerf = b.kerf_mm * k;
  const plate = (b.plate_mm ?? b.kerf_mm * 0.72) * k;
  return (
    <g>
      <path
        d={`M${x - plate / 2} ${top + 26}V${top + 150}M${x + plate / 2} ${top + 26}V${top + 150}`}
        stroke={ink.ink}
        strokeDasharray={b.plate_mm ? undefined : '5 4'}
      />
      <path
        d={`M${x - kerf / 2} ${top}H${x + kerf / 2}L${x + plate / 2} ${top + 34}H${x - plate / 2}Z`}
        fill={ink.ink}
      />
      <path
        d={`M${x - kerf / 2} ${top - 22}v16M${x + kerf / 2} ${top - 22}v16M${x - kerf / 2 - 14} ${top - 14}h14M${x + kerf / 2} ${top - 14}h14`}
        stroke={ink.hair}
      />
      <Label x={x} y={top - 34} size={15} within={W}>
        {t`kerf ${formatThin(b.kerf_mm, units)}`}
      </Label>
      <Label x={x} y={top + 168} size={15} within={W}>
        {b.plate_mm ? t`plate ${formatThin(b.plate_mm, units)}` : 'plate?'}
      </Label>
    </g>
  );
}
