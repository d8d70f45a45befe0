/** A blade from its shape alone, before it is anybody's. */
import type { BladeShape } from './blade';
import { Plate } from './Plate';

interface Props {
  shape: BladeShape & { bore_mm: number };
  size: number; // px
}

export function PlainBlade({ shape, size }: Props) {
  const r = shape.diameter_mm / 2 + 3;
  return (
    <svg width={size} height={size} viewBox={`${-r} ${-r} ${2 * r} ${2 * r}`} aria-hidden focusable="false">
      <Plate shape={shape} scale={size / (2 * r)} />
    </svg>
  );
}
