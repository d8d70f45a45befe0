/** A blade's face from its own numbers, in millimetres about its bore: every larger drawing of a blade holds this one. */
import { memo } from 'react';
import { bladePath, circle, slotsPath, tipsPath, type BladeShape } from './blade';
import { ink } from './ink';

interface Props {
  shape: BladeShape & { bore_mm: number; slots?: number };
  scale: number; // px per mm that it is drawn at, for lines that keep their weight
  pitch?: number; // how caked it is, 0 to 1
  strength?: number; // of the pitch, 0 to 1
  line?: number; // px
}

export const Plate = memo(function Plate({ shape: b, scale, pitch = 0, strength = 0.5, line = 1.1 }: Props) {
  const r = b.diameter_mm / 2;
  const fine = line / scale;
  return (
    <>
      <path d={bladePath(b)} fill={ink.steel} stroke={ink.ink} strokeWidth={fine} strokeLinejoin="round" />
      {/* pitch gathers behind the teeth */}
      {pitch > 0 && (
        <circle
          r={r - b.gullet_depth_mm - 5}
          fill="none"
          stroke={ink.scorch}
          strokeWidth={10}
          strokeOpacity={strength * Math.min(1, pitch)}
        />
      )}
      {b.teeth > 0 && <path d={tipsPath(b)} fill={ink.ink} />}
      {b.slots !== undefined && b.slots > 0 && b.teeth > 0 && (
        <path d={slotsPath(b, b.slots)} stroke={ink.ink} strokeWidth={1.25 * fine} strokeLinecap="round" />
      )}
      {b.teeth === 0 && (
        <circle
          r={r - 5}
          fill="none"
          stroke={ink.ink}
          strokeWidth={10}
          strokeDasharray="2 1.500"
          strokeOpacity={0.55}
        />
      )}
      <path d={circle(b.bore_mm / 2)} fill={ink.sheet} stroke={ink.ink} strokeWidth={fine} />
      <path d={circle(b.bore_mm * 1.6)} fill="none" stroke={ink.hair} strokeWidth={0.7 * fine} />
    </>
  );
});
