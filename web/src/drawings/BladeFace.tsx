/** A whole blade drawn from its own numbers, at a scale that the caller shares among blades. */
import { memo } from 'react';
import type { Blade } from '../api/types';
import { Plate } from './Plate';

interface Props {
  blade: Blade;
  scale: number; // px per mm
}

export const BladeFace = memo(function BladeFace({ blade, scale }: Props) {
  const r = blade.diameter_mm / 2;
  const size = (2 * r + 4) * scale;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-r - 2} ${-r - 2} ${2 * r + 4} ${2 * r + 4}`}
      aria-hidden
      focusable="false"
    >
      <Plate shape={blade} scale={scale} pitch={blade.condition.pitch_level / 3} />
    </svg>
  );
});
