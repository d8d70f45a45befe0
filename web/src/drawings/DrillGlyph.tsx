/** A drill on its shelf: what there is to do in it, small and moving; still where somebody wants things to hold still. */
import { keyframes } from '@emotion/react';
import Box from '@mui/material/Box';
import type { ReactElement } from 'react';
import type { DrillName } from '../api/types';
import { ink } from './ink';

const along = keyframes({ from: { transform: 'translateX(-46px)' }, to: { transform: 'translateX(46px)' } });
const sway = keyframes({ from: { transform: 'rotate(-38deg)' }, to: { transform: 'rotate(52deg)' } });
const show = keyframes({ '0%, 40%': { opacity: 0 }, '60%, 100%': { opacity: 1 } });

const moves = (what: ReturnType<typeof keyframes>, how: string) => ({
  transformBox: 'fill-box',
  transformOrigin: 'center',
  '@media (prefers-reduced-motion: no-preference)': { animation: `${what} ${how}` },
});
const G = ({ sx, children }: { sx: object; children: ReactElement | ReactElement[] }) => (
  <Box component="g" sx={sx}>
    {children}
  </Box>
);

const wood = { fill: ink.wood, stroke: ink.ink, strokeWidth: 1.6 };
const steel = { fill: ink.steel, stroke: ink.ink, strokeWidth: 1.6 };

const disc = (x: number, r: number, teeth: number) => (
  <circle
    key={x}
    cx={x}
    cy={55}
    r={r}
    fill={ink.steel}
    stroke={ink.ink}
    strokeWidth={6}
    strokeDasharray={`${(2 * Math.PI * r * 0.35) / teeth} ${(2 * Math.PI * r * 0.65) / teeth}`}
  />
);

const pictures: Record<DrillName, ReactElement> = {
  feed: (
    <>
      <G sx={moves(along, '3s ease-in-out infinite alternate')}>
        <rect x={40} y={24} width={110} height={64} {...wood} />
        <rect x={96} y={50} width={54} height={10} fill={ink.scorch} fillOpacity={0.6} />
      </G>
      <rect x={106} y={51} width={52} height={8} rx={4} {...steel} />
      <path d="M10 92H210" stroke={ink.ink} strokeWidth={4} />
    </>
  ),
  feel: (
    <>
      <G sx={moves(along, '1.6s linear infinite alternate')}>
        <rect x={70} y={18} width={80} height={26} {...wood} />
      </G>
      <G sx={moves(along, '3.4s linear infinite alternate')}>
        <rect x={70} y={66} width={80} height={26} {...wood} />
      </G>
      <path d="M110 10V48M110 60V98" stroke={ink.accent} strokeWidth={3} strokeDasharray="5 4" />
    </>
  ),
  which: <>{[disc(44, 26, 10), disc(110, 30, 24), disc(176, 26, 40)]}</>,
  read: (
    <>
      <circle cx={110} cy={55} r={44} fill={ink.paper} stroke={ink.ink} strokeWidth={3} />
      <path d="M110 15v8M150 55h-8M110 95v-8M70 55h8" stroke={ink.ink} strokeWidth={2} />
      <G sx={{ ...moves(sway, '3.6s ease-in-out infinite alternate'), transformOrigin: '50% 100%' }}>
        <path d="M108 55L110 20L112 55Z" fill={ink.accent} />
      </G>
    </>
  ),
  'set-up': (
    <>
      <rect x={12} y={36} width={196} height={20} {...wood} />
      <path d="M110 28V64" stroke={ink.ink} strokeWidth={2} strokeDasharray="6 4" />
      <path d="M34 58v34M186 58v34" stroke={ink.ink} strokeWidth={9} />
      <G sx={moves(along, '4s ease-in-out infinite alternate')}>
        <path d="M86 58v34M134 58v34" stroke={ink.accent} strokeWidth={9} />
      </G>
    </>
  ),
  wall: (
    <>
      <rect x={14} y={22} width={192} height={66} {...wood} />
      <path d="M14 44q60 -8 120 2t72 -4M14 66q60 8 110 0t82 4" fill="none" stroke={ink.grain} />
      <G sx={moves(show, '4s ease-in-out infinite alternate')}>
        <path d="M96 22q10 30 -4 66h44q8 -32 -2 -66z" fill={ink.scorch} fillOpacity={0.75} />
      </G>
    </>
  ),
  before: (
    <>
      <rect x={30} y={12} width={160} height={84} fill={ink.sheet} stroke={ink.ink} strokeWidth={2} />
      <path d="M136 12V96" stroke={ink.ink} strokeWidth={8} />
      <rect x={107} y={30} width={6} height={40} rx={3} {...steel} />
      <G sx={moves(show, '3s ease-in-out infinite alternate')}>
        <circle cx={160} cy={40} r={15} fill="none" stroke={ink.accent} strokeWidth={4} />
      </G>
    </>
  ),
};

export const DrillGlyph = ({ drill }: { drill: DrillName }) => (
  <svg
    viewBox="0 0 220 110"
    width="100%"
    aria-hidden
    focusable="false"
    style={{ display: 'block', overflow: 'hidden' }}
  >
    {pictures[drill]}
  </svg>
);
