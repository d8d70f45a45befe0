/** A blade from its shape alone, before it is anybody's. */
import { bladePath, circle, tipsPath, type BladeShape } from './blade';
import { ink } from './ink';

interface Props {
  shape: BladeShape;
  bore: number; // mm
  size: number; // px
}

export function PlainBlade({ shape, bore, size }: Props) {
  const r = shape.diameter_mm / 2;
  const line = (2 * r) / size;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-r - 3} ${-r - 3} ${2 * r + 6} ${2 * r + 6}`}
      aria-hidden
      focusable="false"
    >
      <path
        d={bladePath(shape)}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={1.2 * line}
        strokeLinejoin="round"
      />
      {shape.teeth > 0 && <path d={tipsPath(shape)} fill={ink.ink} />}
      <path d={circle(bore / 2)} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.2 * line} />
      <path d={circle(bore * 1.6)} fill="none" stroke={ink.hair} strokeWidth={line} />
    </svg>
  );
}
