/** A special cut drawn from its own figures: what meets what, and where. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import type { SpecialCut, SpecialCutAsk } from '../api/types';
import { useSize } from './useSize';
import { ink } from './ink';

interface Props {
  ask: SpecialCutAsk;
  plan: SpecialCut;
  radius: number; // of the blade, mm
}

const HEIGHT = 200;
const heights: Partial<Record<SpecialCut['kind'], number>> = { taper: 150 };
const wood = { fill: ink.wood, stroke: ink.ink, strokeWidth: 1.6, strokeLinejoin: 'round' as const };
const steel = { fill: 'none', stroke: ink.ink, strokeWidth: 1.6 };
const line = { stroke: ink.accent, strokeWidth: 2, fill: 'none' };

export function SpecialDrawing(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  return (
    <Box ref={ref} sx={{ minHeight: heights[p.plan.kind] ?? HEIGHT }}>
      {width > 0 && (
        <svg
          width={width}
          height={heights[p.plan.kind] ?? HEIGHT}
          role="img"
          aria-label={t`Drawn to scale: ${p.plan.figures.map((f) => `${f.name} ${f.says}`).join(', ')}`}
          style={{ display: 'block' }}
        >
          {drawings[p.plan.kind]({ ...p, px: width })}
        </svg>
      )}
    </Box>
  );
}

type Sized = Props & { px: number };

function Word({ x, y, end, children }: { x: number; y: number; end?: boolean; children: string }) {
  return (
    <text x={x} y={y} textAnchor={end ? 'end' : 'start'} fontSize={14} fontWeight={600} fill={ink.ink}>
      {children}
    </text>
  );
}

const lengthOf = (plan: SpecialCut, i: number) => plan.figures[i]?.length_mm ?? 0;
const degOf = (plan: SpecialCut, i: number) => plan.figures[i]?.deg ?? 0;

/** The blade's arc in the stock, from the side: its chord on either face. */
function Arc({ ask, plan, radius, px }: Sized) {
  const thick = ask.thickness_mm ?? 18;
  const h = ask.height_mm ?? 10;
  const below = plan.kind === 'plunge';
  const span = Math.max(2 * radius, 1);
  const scale = Math.min((px - 40) / (span * 1.15), 150 / (radius * 1.1));
  const x = px / 2;
  const face = below ? 110 : 130; // of the stock that the blade works from
  const up = below ? 1 : -1;
  const half = lengthOf(plan, 0) / (plan.kind === 'stopped' ? 1 : 2);
  const cy = face - up * (radius - h) * scale;
  return (
    <>
      <rect x={20} y={below ? face : face - thick * scale} width={px - 40} height={thick * scale} {...wood} />
      <circle cx={x} cy={cy} r={radius * scale} {...steel} />
      <path d={`M${x - half * scale} ${face - 8}v16M${x + half * scale} ${face - 8}v16`} {...line} />
      <path d={`M${x - half * scale} ${face}H${x + half * scale}`} {...line} />
      <path d={`M${x} ${face - 14}v28`} stroke={ink.hair} strokeDasharray="3 3" />
    </>
  );
}

/** From above: the wedge between the two ends. */
function Taper({ ask, px }: Sized) {
  const { width_mm: wide = 60, narrow_mm: narrow = 30, length_mm: long = 700 } = ask;
  const scale = Math.min((px - 60) / long, 140 / Math.max(wide, 1));
  const w = long * scale;
  return (
    <>
      <path d={`M30 30h${w}v${narrow * scale}L30 ${30 + wide * scale}z`} {...wood} />
      <path
        d={`M${30 + w} ${30 + narrow * scale}V${30 + wide * scale}H30`}
        stroke={ink.hair}
        strokeDasharray="4 4"
        fill="none"
      />
      <path d={`M30 ${30 + wide * scale}L${30 + w} ${30 + narrow * scale}`} {...line} />
      <path d={`M30 20H${30 + w}`} stroke={ink.ink} strokeWidth={4} />
      <Word x={30} y={14}>{t`fence and jig`}</Word>
      <Word x={30 + w} y={48 + wide * scale} end>{t`wedge`}</Word>
    </>
  );
}

/** From above: the fence across the blade; and the cove in the end of the stock. */
function Cove({ ask, plan, radius, px }: Sized) {
  const deg = degOf(plan, 0);
  const chord = lengthOf(plan, 1);
  const { width_mm: wide = 60, depth_mm: deep = 12, thickness_mm: thick = 25 } = ask;
  const scale = Math.min(px / 2 / (chord * 1.6), 150 / (chord * 1.3));
  const cx = px * 0.28;
  const cy = HEIGHT / 2;
  const end = Math.min((px * 0.4) / (wide * 1.7), 100 / thick);
  const ex = px * 0.74;
  const rx = (wide / 2) * end;
  return (
    <>
      <rect x={cx - 3} y={cy - (chord / 2) * scale} width={6} height={chord * scale} fill={ink.ink} />
      <Word x={cx + 10} y={cy + 5}>{t`blade`}</Word>
      {[-1, 1].map((side) => (
        <path
          key={side}
          d={`M-400 ${side * (wide / 2) * scale}H400`}
          transform={`translate(${cx} ${cy}) rotate(${-90 + deg})`}
          stroke={ink.ink}
          strokeWidth={3}
          clipPath="none"
        />
      ))}
      <rect x={px * 0.52} y={0} width={px * 0.48} height={HEIGHT} fill={ink.sheet} />
      <path
        d={`M${ex - rx * 1.5} ${60 + thick * end}V60H${ex - rx}A${rx} ${deep * end} 0 0 0 ${ex + rx} 60H${ex + rx * 1.5}v${thick * end}z`}
        {...wood}
      />
      <path d={`M${ex - rx} 52H${ex + rx}`} {...line} />
      <desc>{radius}</desc>
    </>
  );
}

/** The board on the table, turned by the miter; and the blade, leaning by the tilt. */
function Compound({ plan, px }: Sized) {
  const miter = degOf(plan, 0);
  const tilt = degOf(plan, 1);
  const a = px * 0.28;
  const b = px * 0.74;
  return (
    <>
      <rect x={a - px * 0.22} y={70} width={px * 0.44} height={60} {...wood} />
      <path d={`M${a - px * 0.24} 66H${a + px * 0.24}`} stroke={ink.ink} strokeWidth={4} />
      <Word x={a - px * 0.24} y={58}>{t`fence`}</Word>
      <Word x={b + px * 0.16} y={168} end>{t`table`}</Word>
      {[-1, 1].map((side) => (
        <g key={side} transform={`translate(${a + side * px * 0.11} 100)`}>
          <path d="M0 -44V44" transform={`rotate(${side * miter})`} {...line} />
          <path d="M0 -44V44" stroke={ink.hair} strokeDasharray="4 4" />
        </g>
      ))}
      <Word x={a - px * 0.2} y={150}>{t`left`}</Word>
      <Word x={a + px * 0.2} y={150} end>{t`right`}</Word>
      <path d={`M${b - px * 0.16} 150H${b + px * 0.16}`} stroke={ink.ink} strokeWidth={3} />
      <path
        d="M0 0V-110"
        transform={`translate(${b} 150) rotate(${-tilt})`}
        stroke={ink.ink}
        strokeWidth={6}
      />
      <path d={`M${b} 150v-110`} stroke={ink.hair} strokeDasharray="4 4" />
    </>
  );
}

/** The end of the board on edge: both kerfs, pass by pass, and the web between. */
function Resaw({ ask, plan, px }: Sized) {
  const { width_mm: wide = 120, thickness_mm: thick = 30 } = ask;
  const scale = Math.min(170 / wide, (px - 80) / (thick * 3));
  const x = px / 2 - (thick / 2) * scale;
  const kerf = Math.max(3, 3.2 * scale);
  const mid = px / 2 - kerf / 2;
  return (
    <>
      <rect x={x} y={12} width={thick * scale} height={wide * scale} {...wood} />
      {plan.passes.map((p, i) => (
        <g
          key={p.says}
          fill={ink.sheet}
          stroke={ink.ink}
          strokeWidth={i === plan.passes.length - 1 ? 1.4 : 0.8}
        >
          <rect x={mid} y={12} width={kerf} height={p.height_mm * scale} fillOpacity={i === 0 ? 1 : 0} />
          <rect
            x={mid}
            y={12 + (wide - p.height_mm) * scale}
            width={kerf}
            height={p.height_mm * scale}
            fillOpacity={i === 0 ? 1 : 0}
          />
        </g>
      ))}
      <path d={`M${x + thick * scale + 6} 12v${wide * scale}`} stroke={ink.ink} strokeWidth={4} />
      <Word x={x + thick * scale + 16} y={HEIGHT / 2}>{t`tall fence`}</Word>
    </>
  );
}

/** The round in its V. */
function Round({ ask, px }: Sized) {
  const d = ask.thickness_mm ?? 30;
  const r = 45;
  const x = px / 2;
  const v = r * Math.SQRT2;
  const y = 150;
  return (
    <>
      <path
        d={`M${x - 130} ${y - v}H${x - v}L${x} ${y}L${x + v} ${y - v}H${x + 130}V185H${x - 130}z`}
        {...wood}
      />
      <circle cx={x} cy={y - v} r={r} {...wood} />
      <path d={`M${x} 20v${y - 10}`} {...line} strokeDasharray="6 4" />
      <desc>{d}</desc>
    </>
  );
}

const drawings: Record<SpecialCut['kind'], (p: Sized) => ReactNode> = {
  plunge: Arc,
  stopped: Arc,
  taper: Taper,
  cove: Cove,
  hopper: Compound,
  crown: Compound,
  resaw: Resaw,
  round: Round,
};
