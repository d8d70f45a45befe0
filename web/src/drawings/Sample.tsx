/** What a wall or an edge looks like that came out so: samples to hold the work against. */
import type { Splinters, Wall } from '../api/types';
import { ink } from './ink';

const W = 64;
const H = 40;

/** Burnt wood is black by night as well. */
const char = '#1d1712';

const grain = 'M0 9Q16 6 32 10T64 8M0 19Q20 22 40 18T64 20M0 30Q14 27 34 31T64 29';

/** The cut wall, face on. */
export function WallSample({ wall }: { wall: Wall }) {
  return (
    <svg width={W} height={H} aria-hidden focusable="false">
      <rect width={W} height={H} fill={ink.wood} />
      <path d={grain} stroke={ink.grain} fill="none" />
      {wall !== 'clean' && (
        <path
          d={wall === 'brown' ? 'M20 0H44Q48 20 42 40H22Q16 22 20 0' : 'M4 0H60V40H4Q10 20 4 0'}
          fill={ink.scorch}
          fillOpacity={wall === 'brown' ? 0.55 : 0.7}
        />
      )}
      {wall === 'black' && <path d="M12 0H52Q58 20 50 40H14Q6 20 12 0" fill={char} fillOpacity={0.85} />}
      {wall === 'black' && (
        <path d="M10 38Q22 4 50 2M18 39Q30 12 58 9" stroke={ink.grain} fill="none" strokeWidth={1.2} />
      )}
      <rect x={0.5} y={0.5} width={W - 1} height={H - 1} fill="none" stroke={ink.hair} />
    </svg>
  );
}

const torn: Record<Splinters, string> = {
  none: '',
  fuzz: 'M6 20l1 -4M12 20l1 -5M20 20l1 -4M27 20l2 -5M35 20l1 -4M42 20l1 -5M50 20l1 -4M57 20l1 -5',
  splinters: 'M6 20l8 -8l-3 8M22 20l10 -9l-4 9M39 20l7 -7l-2 7M52 20l9 -8l-4 8',
  torn: 'M3 20l12 -17l6 6l-7 11M20 20l13 -16l5 9l-7 7M38 20l10 -17l8 8l-6 9M54 20l8 -14v14',
};

/** The face beside the cut, where teeth leave. */
export function EdgeSample({ splinters }: { splinters: Splinters }) {
  return (
    <svg width={W} height={H} aria-hidden focusable="false">
      <rect width={W} height={20} fill={ink.wood} />
      <path d="M0 6Q16 4 32 7T64 5M0 14Q20 16 40 13T64 15" stroke={ink.grain} fill="none" />
      <rect y={20} width={W} height={20} fill={ink.sheet} />
      <path d={torn[splinters]} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.3} strokeLinejoin="round" />
      <path d={`M0 20H${W}`} stroke={ink.ink} strokeWidth={1.6} />
      <rect x={0.5} y={0.5} width={W - 1} height={H - 1} fill="none" stroke={ink.hair} />
    </svg>
  );
}
