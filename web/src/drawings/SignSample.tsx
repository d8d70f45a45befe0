/** What a sign looks like on the work, as a small drawing; nothing for what is only felt or known. */
import type { ReactNode } from 'react';
import { ink } from './ink';

const W = 84;
const H = 44;
const burn = { fill: ink.scorch, fillOpacity: 0.6 };
const mark = { stroke: ink.ink, fill: 'none', strokeWidth: 1.4 };

const overlays: Record<string, ReactNode> = {
  'scorch-both-walls': <path d="M4 2H80V42H4Z" {...burn} />,
  'scorch-fence-wall': <path d="M4 2H80V20H4Z" {...burn} />,
  'scorch-offcut-wall': <path d="M4 24H80V42H4Z" {...burn} />,
  'scorch-one-spot': <ellipse cx={44} cy={22} rx={9} ry={18} {...burn} />,
  'scorch-end-of-cut': <path d="M50 2H82V42H60Q48 20 50 2Z" {...burn} />,
  'walls-fuzzy': (
    <path
      d="M8 6l3 6M16 12l3 6M26 8l3 6M36 14l3 6M46 8l3 6M56 12l3 6M66 7l3 6M10 28l3 6M22 32l3 6M34 27l3 6M48 32l3 6M60 28l3 6M72 32l3 6"
      {...mark}
    />
  ),
  'marks-once-per-turn': <path d="M12 3V41M28 3V41M44 3V41M60 3V41M76 3V41" {...mark} />,
  'marks-rear-arcs': (
    <path d="M8 42Q30 20 34 2M24 42Q46 20 50 2M40 42Q62 20 66 2M34 42Q22 20 8 4M58 42Q44 20 30 4" {...mark} />
  ),
  'marks-waves': (
    <path d="M2 12q8 -8 16 0t16 0t16 0t16 0t16 0M2 30q8 -8 16 0t16 0t16 0t16 0t16 0" {...mark} />
  ),
  'kerf-wide': <path d="M2 14H82M2 30H82M42 14V4M38 8l4 -4l4 4M42 30V40M38 36l4 4l4 -4" {...mark} />,
  'splinter-exit-face': (
    <path d="M6 24l10 -10l-3 10M26 24l12 -9l-5 9M48 24l9 -9l-2 9M64 24l12 -9l-5 9" {...mark} />
  ),
  'splinter-both-faces': (
    <path
      d="M6 12l10 -9l-3 9M30 12l12 -9l-5 9M60 12l10 -9l-3 9M8 32l10 9l-3 -9M36 32l12 9l-5 -9M62 32l10 9l-3 -9"
      {...mark}
    />
  ),
  'splinter-end-edge': <path d="M74 4l-14 8l14 2l-16 9l16 2l-12 10l12 2" {...mark} />,
  'second-shave': <path d="M58 2V42M64 2Q56 22 64 42M70 2V42" {...mark} />,
  'cut-crooked': <path d="M4 14Q40 8 80 26" {...mark} strokeWidth={2.2} />,
  'end-not-square': <path d="M60 2L68 42M60 2V42" {...mark} strokeDasharray="0" />,
  'end-not-plumb': <path d="M20 38H64L70 8H20Z" {...mark} />,
  'piece-short': <path d="M6 22H66M74 10V34M66 10V34" {...mark} />,
  'pieces-vary': <path d="M6 10H66M6 22H74M6 34H61" {...mark} strokeWidth={3} />,
  'groove-ridge': <path d="M8 6V38H26V20L42 14L58 20V38H76V6" {...mark} />,
  'groove-ears': <path d="M8 6V36H24V22L28 28H56L60 22V36H76V6" {...mark} />,
  'groove-steps': <path d="M8 6V36H24V22H36V26H50V20H60V36H76V6" {...mark} />,
  'groove-width-off': <path d="M8 6V38H30V18H54V38H76V6M30 11H54M34 8l-4 3l4 3M50 8l4 3l-4 3" {...mark} />,
};

export const hasSample = (id: string) => id in overlays;

export function SignSample({ id }: { id: string }) {
  if (!hasSample(id)) return null;
  const bare = id.startsWith('groove') || id === 'end-not-plumb';
  return (
    <svg width={W} height={H} aria-hidden focusable="false" style={{ flex: 'none' }}>
      <rect width={W} height={H} fill={bare ? ink.sheet : ink.wood} />
      {!bare && (
        <path
          d="M0 9Q20 6 42 10T84 8M0 21Q26 24 52 20T84 22M0 34Q18 31 44 35T84 33"
          stroke={ink.grain}
          fill="none"
        />
      )}
      {overlays[id]}
      <rect x={0.5} y={0.5} width={W - 1} height={H - 1} fill="none" stroke={ink.hair} />
    </svg>
  );
}
