/** What is under way, drawn: a ring that fills as the time goes, and the peg that a blade is missing from. */
import type { ReactNode } from 'react';
import { ink } from './ink';

interface RingProps {
  share: number; // of the time that is over, 0 to 1
  text: string; // in the middle
  size?: number;
  late?: boolean;
}

export function TimerRing({ share, text, size = 64, late = false }: RingProps) {
  const r = 27;
  const round = 2 * Math.PI * r;
  const [time = '', after] = text.split(' ');
  return (
    <Glyph size={size}>
      <circle r={r} fill="none" stroke={ink.hair} strokeWidth={1} />
      <circle
        r={r}
        fill="none"
        stroke={ink.ink}
        strokeWidth={late ? 7 : 5}
        strokeDasharray={`${Math.min(1, Math.max(0, share)) * round} ${round}`}
        transform="rotate(-90)"
      />
      <text
        y={late && text.includes(' ') ? -5 : 0}
        textAnchor="middle"
        dominantBaseline="central"
        fontSize={time.length > 5 ? 12 : 15}
        fontWeight={650}
        fill={ink.ink}
      >
        {time}
      </text>
      {after && (
        <text y={11} textAnchor="middle" dominantBaseline="central" fontSize={12} fill={ink.ink}>
          {after}
        </text>
      )}
    </Glyph>
  );
}

interface GlyphProps {
  size?: number;
  children: ReactNode;
}

const Glyph = ({ size = 64, children }: GlyphProps) => (
  <svg
    width={size}
    height={size}
    viewBox="-32 -32 64 64"
    aria-hidden
    focusable="false"
    style={{ flex: 'none' }}
  >
    {children}
  </svg>
);

/** A peg with nothing on it. */
export const EmptyPeg = () => (
  <Glyph>
    <circle r={26} fill="none" stroke={ink.hair} strokeWidth={1.6} strokeDasharray="5 4" />
    <circle r={5} fill={ink.ink} />
  </Glyph>
);

/** A groove that is being fitted: the piece, and the gap under it. */
export const GrooveGlyph = () => (
  <Glyph>
    <path d="M-28 -2H-10V14H10V-2H28V26H-28Z" fill={ink.wood} stroke={ink.ink} strokeWidth={1.8} />
    <path d="M-8.500 -26V6H8.500V-26" fill={ink.steel} stroke={ink.ink} strokeWidth={1.8} />
  </Glyph>
);
