/** One small drawing for each word of the craft, 160 by 90. What the word means is in the accent. */
import type { ReactElement } from 'react';
import { ink } from './ink';

export type TermId =
  | 'feed-range'
  | 'room'
  | 'kerf'
  | 'side-clearance'
  | 'hook'
  | 'heel'
  | 'run-out'
  | 'pitch'
  | 'bite'
  | 'arc'
  | 'proud'
  | 'zero-clearance'
  | 'raker'
  | 'burn-risk';

const line = { fill: 'none', stroke: ink.ink, strokeWidth: 1.6 };
const mean = { fill: 'none', stroke: ink.accent, strokeWidth: 3 };
const arrow = (d: string) => <path d={d} {...mean} strokeLinecap="round" strokeLinejoin="round" />;

/** A blade from the side, its rim alone, and a board over a table. */
const board = (
  <>
    <rect x={8} y={38} width={144} height={22} fill={ink.wood} stroke={ink.ink} strokeWidth={1.6} />
    <path d="M4 60H156" {...line} strokeWidth={2} />
  </>
);
const rim = (top: number) => `M${80 - 46} 90A46 46 0 0 1 ${80 + 46} 90`.replace(/90/g, String(top + 46));

const tooth = (x: number, w: number, slant = 0) =>
  `M${x} 22L${x + w} ${22 + slant}L${x + w - 2} 50H${x + 2}Z`;

const pictures: Record<TermId, ReactElement> = {
  'feed-range': (
    <>
      <rect x={8} y={34} width={50} height={22} fill={ink.scorch} fillOpacity={0.7} />
      <rect x={122} y={34} width={30} height={22} fill={ink.hair} fillOpacity={0.4} />
      <path d="M8 34H152M8 56H152" {...line} />
      {arrow('M58 30V60M122 30V60M62 70H118M62 70l6 -5M62 70l6 5M118 70l-6 -5M118 70l-6 5')}
    </>
  ),
  room: (
    <>
      <path d="M8 34H152M8 56H152M58 30V60M122 30V60" {...line} />
      {arrow('M66 45H114M66 45l7 -5M66 45l7 5M114 45l-7 -5M114 45l-7 5')}
    </>
  ),
  kerf: (
    <>
      <path d="M10 60V20H62V60ZM98 60V20H150V60Z" fill={ink.wood} stroke={ink.ink} strokeWidth={1.6} />
      <rect x={72} y={8} width={16} height={52} fill={ink.steel} stroke={ink.ink} />
      {arrow('M62 74H98M62 74l7 -5M62 74l7 5M98 74l-7 -5M98 74l-7 5')}
    </>
  ),
  'side-clearance': (
    <>
      <rect x={68} y={40} width={24} height={46} fill={ink.steel} stroke={ink.ink} />
      <path d="M56 14H104L98 40H62Z" fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      {arrow('M56 52H68M92 52H104')}
    </>
  ),
  hook: (
    <>
      <path d="M80 86V10" {...line} strokeDasharray="4 4" />
      <path d="M80 84L96 20L66 34" fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      {arrow('M80 40A44 44 0 0 1 91 42')}
    </>
  ),
  heel: (
    <>
      <path d="M20 18H140M20 74H140" {...line} />
      <path d="M36 54L124 40" stroke={ink.steel} strokeWidth={7} />
      <path d="M36 54L124 40" {...line} />
      {arrow('M36 58V70M124 44V70')}
    </>
  ),
  'run-out': (
    <>
      <path d="M80 84L74 12M80 84L86 12" {...line} strokeDasharray="4 4" />
      <path d="M80 84V12" stroke={ink.steel} strokeWidth={6} />
      {arrow('M62 16H98M62 16l7 -5M62 16l7 5M98 16l-7 -5M98 16l-7 5')}
    </>
  ),
  pitch: (
    <>
      <path d={tooth(60, 40)} fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      <path
        d="M60 24q-10 8 0 18q-6 6 2 8M100 24q8 6 0 14q8 6 -2 12"
        fill={ink.scorch}
        stroke={ink.scorch}
        strokeWidth={4}
      />
    </>
  ),
  bite: (
    <>
      {board}
      <path d={rim(16)} {...line} />
      <path d="M44 40A46 46 0 0 1 116 40" {...mean} strokeWidth={6} strokeOpacity={0.5} />
      <path d="M50 46A46 46 0 0 1 110 46" {...line} />
    </>
  ),
  arc: (
    <>
      {board}
      <path d={rim(22)} {...line} />
      {arrow('M42 60A46 46 0 0 1 52 38')}
    </>
  ),
  proud: (
    <>
      {board}
      <path d={rim(18)} {...line} />
      {arrow('M134 18V38M134 18l-5 6M134 18l5 6M134 38l-5 -6M134 38l5 -6')}
      <path d="M80 18H142" {...line} strokeDasharray="3 3" />
    </>
  ),
  'zero-clearance': (
    <>
      <path d="M4 50H70V66H4ZM90 50H156V66H90Z" fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      <rect x={71} y={12} width={18} height={72} fill={ink.steel} stroke={ink.ink} />
      {arrow('M70 46V70M90 46V70')}
    </>
  ),
  raker: (
    <>
      <path d={tooth(14, 28, 8)} fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      <path d="M64 30L90 22L88 50H66Z" fill={ink.steel} stroke={ink.ink} strokeWidth={1.6} />
      <path d="M114 27H142L140 50H116Z" {...mean} />
      <path d="M8 22H152" {...line} strokeDasharray="3 3" />
    </>
  ),
  'burn-risk': (
    <>
      {[0, 1, 2, 3, 4, 5].map((i) => (
        <rect key={i} x={10 + i * 24} y={26} width={20} height={38} fill={ink.wood} stroke={ink.ink} />
      ))}
      <rect x={58} y={26} width={20} height={38} fill={ink.scorch} stroke={ink.ink} />
    </>
  ),
};

export const TermPicture = ({ term }: { term: TermId }) => (
  <svg
    width={160}
    height={90}
    viewBox="0 0 160 90"
    aria-hidden
    focusable="false"
    style={{ maxWidth: '100%', display: 'block' }}
  >
    {pictures[term]}
  </svg>
);
