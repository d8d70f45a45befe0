/** A whole blade drawn from its own numbers, at a scale that the caller shares among blades. */
import { memo } from 'react';
import type { Blade } from '../api/types';
import { bladePath, circle, slotsPath, tipsPath } from './blade';
import { ink } from './ink';

interface Props {
  blade: Blade;
  scale: number; // px per mm
}

export const BladeFace = memo(function BladeFace({ blade, scale }: Props) {
  const r = blade.diameter_mm / 2;
  const size = (2 * r + 4) * scale;
  const pitchy = Math.min(1, blade.condition.pitch_level / 3);
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-r - 2} ${-r - 2} ${2 * r + 4} ${2 * r + 4}`}
      aria-hidden
      focusable="false"
    >
      <path
        d={bladePath(blade)}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={1.1 / scale}
        strokeLinejoin="round"
      />
      {/* pitch gathers behind the teeth */}
      <circle
        r={r - blade.gullet_depth_mm - 5}
        fill="none"
        stroke={ink.scorch}
        strokeWidth={9}
        strokeOpacity={0.5 * pitchy}
      />
      {blade.teeth > 0 && <path d={tipsPath(blade)} fill={ink.ink} />}
      {blade.slots > 0 && blade.teeth > 0 && (
        <path
          d={slotsPath(blade, blade.slots)}
          stroke={ink.ink}
          strokeWidth={1.4 / scale}
          strokeLinecap="round"
        />
      )}
      {blade.teeth === 0 && (
        <circle
          r={r - 5}
          fill="none"
          stroke={ink.ink}
          strokeWidth={10}
          strokeDasharray="2 1.500"
          strokeOpacity={0.55}
        />
      )}
      <path d={circle(blade.bore_mm / 2)} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.1 / scale} />
      <path d={circle(blade.bore_mm * 1.6)} fill="none" stroke={ink.hair} strokeWidth={0.8 / scale} />
    </svg>
  );
});
