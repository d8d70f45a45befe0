/** What turns the figures, drawn for one place of its handle: a small drawing each, 480 by 260. */
import { keyframes } from '@emotion/react';
import Box from '@mui/material/Box';
import type { ReactElement } from 'react';
import type { WhyName, WhyNotch } from '../api/types';
import { bladePath, tipsPath } from './blade';
import { ink } from './ink';
import { char } from './PracticeWall';
import { TeethStrip } from './TeethStrip';

const W = 480;
const H = 260;

const pass = keyframes({ from: { transform: 'translateX(-90px)' }, to: { transform: 'translateX(90px)' } });

/** A tooth goes by and by; where somebody wants things to hold still it stands. */
const Moving = ({ children, slow = 1 }: { children: ReactElement; slow?: number }) => (
  <Box
    component="g"
    sx={{
      '@media (prefers-reduced-motion: no-preference)': { animation: `${pass} ${4 * slow}s linear infinite` },
    }}
  >
    {children}
  </Box>
);

const steel = { fill: ink.steel, stroke: ink.ink, strokeWidth: 1.6 };

/** A tooth from the side, its tip at a place, going to the left. */
const Tooth = ({ x, y }: { x: number; y: number }) => (
  <g transform={`translate(${x} ${y})`}>
    <path d="M0 0L10 46Q30 58 52 46L34 6Z" {...steel} />
    <path d="M0 0L4 20H13L11 2Z" fill={ink.ink} />
  </g>
);

function Fibres({ n }: { n: WhyNotch }) {
  const rows = Array.from({ length: 9 }, (_, i) => i);
  return (
    <>
      {n.across
        ? // end on: each bundle is cut through
          rows.flatMap((i) =>
            Array.from({ length: 24 }, (_, k) => (
              <circle
                key={`${i} ${k}`}
                cx={10 + k * 20}
                cy={96 + i * 18}
                r={8}
                fill={ink.wood}
                stroke={ink.grain}
                strokeWidth={1.3}
              />
            )),
          )
        : rows.map((i) => (
            <rect
              key={i}
              x={0}
              y={88 + i * 18}
              width={W}
              height={15}
              fill={ink.wood}
              stroke={ink.grain}
              strokeWidth={1.3}
            />
          ))}
      <Moving slow={2}>
        <g>
          <rect x={W / 2} y={84} width={300} height={30} fill={ink.sheet} />
          {n.across ? (
            <path
              d={`M${W / 2 - 14} 104l-6 -14m20 4l-2 -18m22 14l6 -16`}
              stroke={ink.grain}
              strokeWidth={5}
              fill="none"
            />
          ) : (
            <path
              d={`M${W / 2 - 2} 110q-26 -10 -22 -36t30 -28t28 20t-22 18`}
              fill="none"
              stroke={ink.wood}
              strokeWidth={11}
            />
          )}
          <g transform={`rotate(180 ${W / 2 + 20} 92)`}>
            <Tooth x={W / 2 + 40} y={72} />
          </g>
        </g>
      </Moving>
    </>
  );
}

function Grinds({ n }: { n: WhyNotch }) {
  return (
    <svg x={40} y={20} width={400} height={220} viewBox="0 22 92 32">
      <TeethStrip blade={n.blade} />
    </svg>
  );
}

function Arc({ n }: { n: WhyNotch }) {
  const r = n.blade.diameter_mm / 2;
  const scale = 1.8; // px for a millimetre
  const table = 226;
  const cy = n.height_mm - r; // of the bore over the table, mm
  const X = (mm: number) => W / 2 + mm * scale;
  const Y = (mm: number) => table - mm * scale;
  const half = (h: number) => Math.sqrt(Math.max(0, r * r - (h - cy) * (h - cy)));
  const [out, into] = [half(0), half(Math.min(n.thickness_mm, n.height_mm))];
  return (
    <>
      <rect
        x={0}
        y={Y(n.thickness_mm)}
        width={W}
        height={n.thickness_mm * scale}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.5}
      />
      <svg x={0} y={0} width={W} height={table}>
        <g transform={`translate(${X(0)} ${Y(cy)}) scale(${scale})`}>
          <path d={bladePath(n.blade)} fill={ink.steel} fillOpacity={0.8} stroke={ink.ink} strokeWidth={1} />
          <path d={tipsPath(n.blade)} fill={ink.ink} />
        </g>
      </svg>
      <path
        d={`M${X(-out)} ${Y(0)}A${r * scale} ${r * scale} 0 0 1 ${X(-into)} ${Y(n.thickness_mm)}`}
        fill="none"
        stroke={ink.accent}
        strokeWidth={7}
      />
      {/* the chip, hugely thickened */}
      <rect
        x={16}
        y={16}
        width={130}
        height={Math.max(2, n.chip_mm * 500)}
        fill={ink.grain}
        stroke={ink.ink}
      />
      <path d={`M0 ${table}H${W}`} stroke={ink.ink} strokeWidth={3} />
    </>
  );
}

function Gullets({ n }: { n: WhyNotch }) {
  const full = Math.min(1.3, n.fill);
  return (
    <>
      <path d="M30 0V120Q30 240 150 240H300Q360 240 372 120L392 30H480V0Z" {...steel} strokeWidth={2} />
      <path d="M372 120L392 30L416 30L404 126Z" fill={ink.ink} />
      {Array.from({ length: Math.round(34 * full) }, (_, i) => {
        const row = Math.floor(i / 6);
        return (
          <path
            key={i}
            d={`M${86 + (i % 6) * 46 + (row % 2) * 18} ${226 - row * 34}q-14 -6 -8 -20t20 -8t10 18t-16 4`}
            fill="none"
            stroke={full > 1 && i > 33 ? ink.accent : ink.grain}
            strokeWidth={5}
          />
        );
      })}
    </>
  );
}

function Heat({ n }: { n: WhyNotch }) {
  const brown = Math.max(0, Math.min(1, (n.heat - 0.4) / 1.1));
  const chip = 4 + n.chip_mm * 300;
  return (
    <>
      <rect x={0} y={110} width={W} height={150} fill={ink.wood} stroke={ink.ink} strokeWidth={1.5} />
      <path
        d={`M0 140q120 -10 240 2t240 -4M0 190q160 12 300 0t180 6M0 232q120 -8 260 2t220 -6`}
        fill="none"
        stroke={ink.grain}
      />
      <rect
        x={W / 2}
        y={110}
        width={W / 2}
        height={44}
        fill={brown > 0.8 ? char : ink.scorch}
        fillOpacity={0.85 * brown}
      />
      <Moving slow={1.5}>
        <g>
          <path
            d={`M${W / 2 - 6} 104q-40 -6 -34 -44t44 -30`}
            fill="none"
            stroke={ink.grain}
            strokeWidth={chip}
            strokeLinecap="round"
          />
          <Tooth x={W / 2} y={58} />
        </g>
      </Moving>
    </>
  );
}

function Line({ n }: { n: WhyNotch }) {
  const lean = n.heel_mm * 20; // degrees, hugely more than it is
  return (
    <>
      <rect x={0} y={40} width={W} height={180} fill={ink.wood} />
      <path d="M0 130H300" stroke={ink.sheet} strokeWidth={18} />
      <path d="M0 20H480" stroke={ink.hair} strokeWidth={8} />
      <rect
        x={130}
        y={121 - n.heel_mm * 60}
        width={330}
        height={9 + n.heel_mm * 60}
        fill={ink.scorch}
        fillOpacity={Math.min(0.85, 0.6 * n.heat)}
      />
      <g transform={`rotate(${-lean} 150 130)`}>
        <rect x={150} y={125} width={230} height={10} rx={5} {...steel} />
        {Array.from({ length: 10 }, (_, i) => (
          <path key={i} d={`M${156 + i * 22} 124l9 -4v20l-9 -4z`} fill={ink.ink} />
        ))}
      </g>
    </>
  );
}

function Backer({ n }: { n: WhyNotch }) {
  const torn = Math.min(1, n.splinter / 2.4);
  const held = {
    open: null,
    tape: 6,
    'zero-clearance': 40,
    backer: 40,
    scored: null,
    'scoring-blade': null,
    spare: null,
  }[n.support];
  return (
    <>
      <rect x={0} y={20} width={W} height={140} fill={ink.wood} stroke={ink.ink} strokeWidth={1.5} />
      {[50, 80, 110, 140].map((y) => (
        <path key={y} d={`M0 ${y}H${W}`} stroke={ink.grain} />
      ))}
      <rect
        x={W / 2 - 26}
        y={20}
        width={52}
        height={140}
        fill={ink.sheet}
        stroke={ink.ink}
        strokeWidth={1.5}
      />
      {held !== null && (
        <>
          <rect x={0} y={161} width={W / 2 - 26} height={held} {...steel} />
          <rect x={W / 2 + 26} y={161} width={W / 2 - 26} height={held} {...steel} />
        </>
      )}
      {n.support === 'scored' && (
        <path d={`M${W / 2 - 28} 160v-16M${W / 2 + 28} 160v-16`} stroke={ink.accent} strokeWidth={4} />
      )}
      {[0, 1, 2, 3].map((i) => (
        <g key={i} fill={ink.wood} stroke={ink.ink} strokeWidth={1.2}>
          <path
            d={`M${W / 2 - 26 - i * 26} 160l${-30 * torn} ${46 * torn - i * 6 * torn}l${-14 * torn} ${-46 * torn + i * 6 * torn}z`}
          />
          <path
            d={`M${W / 2 + 26 + i * 26} 160l${30 * torn} ${46 * torn - i * 6 * torn}l${14 * torn} ${-46 * torn + i * 6 * torn}z`}
          />
        </g>
      ))}
    </>
  );
}

const views: Record<WhyName, (p: { n: WhyNotch }) => ReactElement> = {
  fibres: Fibres,
  grinds: Grinds,
  arc: Arc,
  gullets: Gullets,
  heat: Heat,
  line: Line,
  backer: Backer,
};

export function WhyView({ why, notch }: { why: WhyName; notch: WhyNotch }) {
  const View = views[why];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      aria-hidden
      focusable="false"
      style={{ display: 'block', maxHeight: 420 }}
    >
      <View n={notch} />
    </svg>
  );
}
