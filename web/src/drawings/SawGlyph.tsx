/** The three kinds of saw in a few lines, to be told apart at a glance. */
import type { Saw } from '../api/types';
import { ink } from './ink';

const line = {
  stroke: ink.ink,
  strokeWidth: 2,
  fill: 'none',
  strokeLinejoin: 'round',
  strokeLinecap: 'round',
} as const;

export function SawGlyph({ kind }: { kind: Saw['kind'] }) {
  return (
    <svg width={96} height={76} viewBox="0 0 96 76" aria-hidden focusable="false">
      {kind === 'table' && (
        <>
          <circle cx={48} cy={36} r={22} {...line} fill={ink.steel} />
          <path d="M6 36H90V43H6Z" fill={ink.sheet} stroke={ink.ink} strokeWidth={2} />
          <path d="M14 43V68H82V43Z" fill={ink.sheet} fillOpacity={0.8} stroke={ink.ink} strokeWidth={2} />
          <path d="M74 36V22h8V36" {...line} />
        </>
      )}
      {kind === 'miter' && (
        <>
          <circle cx={40} cy={28} r={20} {...line} fill={ink.steel} />
          <path d="M18 26a22 22 0 0 1 44 0" {...line} strokeWidth={5} strokeOpacity={0.5} />
          <path d="M46 30L72 44V62" {...line} strokeWidth={4} />
          <path d="M8 62H88V69H8ZM54 62V50h7V62" fill={ink.sheet} stroke={ink.ink} strokeWidth={2} />
          <path d="M18 20q-10 -4 -11 6" {...line} strokeWidth={4} />
        </>
      )}
      {kind === 'circular' && (
        <>
          <circle cx={48} cy={44} r={20} {...line} fill={ink.steel} />
          <path d="M26 42a22 22 0 0 1 44 0" {...line} strokeWidth={5} strokeOpacity={0.5} />
          <path d="M12 52H84" {...line} strokeWidth={3} />
          <path d="M40 18q10 -12 24 -4q6 8 14 12" {...line} strokeWidth={5} />
          <path d="M8 70H88" {...line} stroke={ink.hair} strokeDasharray="5 4" />
        </>
      )}
    </svg>
  );
}
