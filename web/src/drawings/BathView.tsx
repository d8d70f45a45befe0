/** A bath: from the side with the blades that lie in it, and as a small jar that tells how used it is. */
import { t } from '@lingui/core/macro';
import type { Units } from '../api/types';
import { formatSetting } from '../measure/format';
import { VerticalDimension } from './Dimension';
import { ink } from './ink';
import { Label } from './Label';

interface Props {
  long: number; // mm, of the tray
  deep: number; // mm, of the tray
  diameter: number; // mm, of the blades
  kerf: number;
  blades: number;
  level: number | undefined; // mm; left out where it does not fit
  units: Units;
}

const W = 440; // so that its figures can still be read on a phone
const H = 260;

export function BathSection({ long, deep, diameter, kerf, blades, level, units }: Props) {
  const across = 290 / Math.max(long, diameter);
  // Height is drawn larger than length, or nothing of it could be seen.
  const up = 150 / Math.max(deep, level ?? 0);
  const x = 40;
  const floor = 210;
  const w = long * across;
  const between = level !== undefined && blades > 1 ? (level - 15 - blades * kerf) / (blades - 1) : 8;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={[
        t`Tray from the side: ${blades} on spacers`,
        level !== undefined && t`cleaner ${formatSetting(level, units)} deep`,
      ]
        .filter(Boolean)
        .join(', ')}
      style={{ display: 'block', width: '100%', maxWidth: 520, height: 'auto' }}
    >
      {level !== undefined && (
        <path
          d={`M${x} ${floor - level * up}${Array.from({ length: 9 }, () => `q${w / 36} -4 ${w / 18} 0t${w / 18} 0`).join('')}V${floor}H${x}Z`}
          fill={ink.hair}
          fillOpacity={0.22}
        />
      )}
      {Array.from({ length: Math.min(blades, 20) }, (_, i) => {
        const y = floor - (i * (kerf + between) + kerf) * up;
        return (
          <g key={i}>
            <rect
              x={x + (w - diameter * across) / 2}
              y={y}
              width={diameter * across}
              height={Math.max(2, kerf * up)}
              fill={ink.ink}
            />
            {i > 0 &&
              [0.2, 0.8].map((s) => (
                <rect
                  key={s}
                  x={x + w * s - 8}
                  y={y + kerf * up}
                  width={16}
                  height={Math.max(0, between * up)}
                  fill={ink.wood}
                  stroke={ink.hair}
                />
              ))}
          </g>
        );
      })}
      <path
        d={`M${x - 3} ${floor - deep * up}V${floor + 3}H${x + w + 3}V${floor - deep * up}`}
        fill="none"
        stroke={ink.ink}
        strokeWidth={4}
      />
      {level !== undefined && (
        <VerticalDimension
          x={x + w + 52}
          from={floor}
          to={floor - level * up}
          reach={-48}
          text={formatSetting(level, units)}
          within={W}
        />
      )}
      <Label x={x + w / 2} y={floor + 26} size={15} within={W}>
        {t`${formatSetting(long, units)} long, ${formatSetting(deep, units)} deep`}
      </Label>
    </svg>
  );
}

/** A jar of it: the more blades it has washed, the thicker it is with what came off them. */
export function BathJar({ used }: { used: number }) {
  const specks = Math.round(26 * Math.min(1, used));
  return (
    <svg width={62} height={70} viewBox="0 0 62 70" aria-hidden focusable="false" style={{ flex: 'none' }}>
      <path
        d="M10 14q10.500 -5 21 0t21 0V60q0 6 -6 6H16q-6 0 -6 -6Z"
        fill={ink.hair}
        fillOpacity={0.18 + 0.3 * Math.min(1, used)}
      />
      {Array.from({ length: specks }, (_, i) => {
        const a = i * 2.39996;
        const d = 21 * Math.sqrt((i + 0.5) / 26);
        return (
          <circle key={i} cx={31 + d * Math.cos(a)} cy={41 + d * Math.sin(a)} r={1.8} fill={ink.scorch} />
        );
      })}
      <path d="M10 4V60q0 6 6 6H46q6 0 6 -6V4" fill="none" stroke={ink.ink} strokeWidth={2} />
    </svg>
  );
}
