/** A blade on its peg: at the wall's one scale, ink round it for edge used up, brown for pitch, a flag for what is due. */
import { memo } from 'react';
import type { Blade } from '../api/types';
import { ink } from './ink';
import { Plate } from './Plate';

interface Props {
  blade: Blade;
  scale: number; // px per mm
  size: number; // px, of its place
}

export const PegBlade = memo(function PegBlade({ blade: b, scale, size }: Props) {
  const c = b.condition;
  const r = (b.diameter_mm / 2) * scale;
  const at = size / 2;
  if (c.away)
    return (
      <svg width={size} height={size} viewBox={`${-at} ${-at} ${size} ${size}`} aria-hidden focusable="false">
        <circle r={r} fill="none" stroke={ink.hair} strokeWidth={1.6} strokeDasharray="6 5" />
        <circle r={4} fill={ink.ink} />
      </svg>
    );
  const ring = (radius: number, share: number, colour: string) => (
    <circle
      r={radius}
      fill="none"
      stroke={colour}
      strokeWidth={3}
      transform="rotate(-90)"
      strokeDasharray={`${Math.min(1, share) * 2 * Math.PI * radius} ${2 * Math.PI * radius}`}
    />
  );
  return (
    <svg width={size} height={size} viewBox={`${-at} ${-at} ${size} ${size}`} aria-hidden focusable="false">
      <g transform={`scale(${scale})`}>
        <Plate shape={b} scale={scale} />
      </g>
      {ring(r + 4, c.wear_share, ink.ink)}
      {ring(r + 8, c.pitch_level / 3, ink.scorch)}
      {c.verdict !== 'clear' && (
        <g transform={`translate(${Math.min(at - 14, r * 0.74)} ${-Math.min(at - 12, r * 0.78)})`}>
          <path
            d="M-9 8L0 -8L9 8Z"
            fill={ink.paper}
            stroke={ink.ink}
            strokeWidth={2.2}
            strokeLinejoin="round"
          />
          <path d="M0 -2V3M0 5.500V6" stroke={ink.ink} strokeWidth={2} strokeLinecap="round" />
        </g>
      )}
    </svg>
  );
});
