/** A table saw from above with all that stands at it: guide, fence, stop, knife, hands, and who works there. */
import type { SawPlanDrawn } from '../api/types';
import { ink } from './ink';

const W = 640;
const H = 560;
const X = 320; // of the blade
const FRONT = 300; // where it comes out of the table toward who works there
const REAR = 150;
const NEAR = 0.5; // px for a millimetre from blade to hand

export const parts = ['guide', 'fence', 'offcut', 'behind', 'hands', 'stand'] as const;
export type PartSpot = (typeof parts)[number];

/** Where the parts are that can be pointed at. */
function spotOf(part: PartSpot, p: SawPlanDrawn): readonly [number, number] {
  const [[x, y] = [0, 0]] = handSpots(p);
  switch (part) {
    case 'guide':
      return p.across ? [X - 70, BOARD + 130] : [446, 300];
    case 'fence':
      return [p.across ? (p.fence ? fenceAt(p) + 14 : 560) : 446, 76];
    case 'offcut':
      return p.across ? [X + 60, BOARD - 36] : [X - 45, REAR + 70];
    case 'behind':
      return [X - 34, REAR - 28];
    case 'hands':
      return [x, y + 62];
    case 'stand':
      return [(p.in_line ? X : 190) + 112, 500];
  }
}

interface Props {
  plan: SawPlanDrawn;
  flags?: readonly PartSpot[]; // numbered, in this order
  shown?: PartSpot | undefined; // that is dwelt on
  onPart?: (part: PartSpot) => void;
}

const steel = { fill: ink.steel, stroke: ink.ink, strokeWidth: 2 };

export function PlanView({ plan: p, flags = [], shown, onPart }: Props) {
  const right = p.fence_side === 'right';
  const side = (x: number) => (right ? X + x : X - x);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      aria-hidden
      focusable="false"
      style={{ display: 'block', maxHeight: 520 }}
    >
      <rect x={40} y={40} width={560} height={400} fill={ink.sheet} stroke={ink.ink} strokeWidth={2.5} />
      <path d={`M${X - 70} 40V440`} stroke={ink.hair} strokeWidth={7} />
      <rect
        x={X - 12}
        y={REAR - 40}
        width={24}
        height={FRONT - REAR + 70}
        fill="none"
        stroke={ink.hair}
        strokeWidth={2}
      />
      {p.across ? <Across p={p} /> : <Along p={p} side={side} />}
      {p.knife && <rect x={X - 2.5} y={REAR - 34} width={5} height={30} fill={ink.ink} />}
      <rect x={X - 4} y={REAR} width={8} height={FRONT - REAR} rx={4} {...steel} />
      {p.leans !== 'none' && (
        <path
          d={
            p.leans === 'right'
              ? `M${X + 4} ${REAR + 10}h26v${FRONT - REAR - 20}h-26`
              : `M${X - 4} ${REAR + 10}h-26v${FRONT - REAR - 20}h26`
          }
          fill={ink.steel}
          fillOpacity={0.6}
          stroke={ink.ink}
          strokeWidth={1.5}
        />
      )}
      <Hands p={p} />
      <g transform={`translate(${p.in_line ? X : 190} 500)`}>
        <ellipse rx={70} ry={26} fill={ink.mark} fillOpacity={0.35} stroke={ink.ink} strokeWidth={2} />
        <circle cy={-4} r={22} fill={ink.paper} stroke={ink.ink} strokeWidth={2} />
      </g>
      {flags.map((part, i) => {
        const [x, y] = spotOf(part, p);
        return (
          <g key={part} onClick={() => onPart?.(part)} style={{ cursor: onPart ? 'pointer' : undefined }}>
            <circle cx={x} cy={y} r={44} fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r={23}
              fill={part === shown ? ink.accent : ink.paper}
              stroke={part === shown ? ink.accent : ink.ink}
              strokeWidth={2}
            />
            <text
              x={x}
              y={y}
              fontSize={25}
              fontWeight={700}
              textAnchor="middle"
              dominantBaseline="central"
              fill={part === shown ? ink.sheet : ink.ink}
            >
              {i + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** A rip: the work runs along the fence. */
function Along({ p, side }: { p: SawPlanDrawn; side: (x: number) => number }) {
  const end = FRONT + p.hand_mm * NEAR + 12;
  const left = Math.min(side(110), side(-70));
  return (
    <>
      {p.fence && (
        <g
          transform={`rotate(${(p.fence_side === 'right' ? 1 : -1) * p.fence_open_mm * 0.9} ${side(112)} 440)`}
        >
          <rect x={Math.min(side(112), side(140))} y={40} width={28} height={400} {...steel} />
        </g>
      )}
      <g transform={p.fence ? undefined : `rotate(5 ${X} ${FRONT})`}>
        <rect
          x={left}
          y={REAR + 40}
          width={180}
          height={end - REAR - 40}
          fill={ink.wood}
          fillOpacity={0.85}
          stroke={ink.ink}
          strokeWidth={2}
        />
        {[30, 70, 120, 152].map((x) => (
          <path
            key={x}
            d={`M${left + x} ${REAR + 44}q6 ${(end - REAR) / 3} -2 ${end - REAR - 48}`}
            fill="none"
            stroke={ink.grain}
          />
        ))}
      </g>
      <path d={`M${X} ${REAR + 40}V${FRONT}`} stroke={ink.sheet} strokeWidth={9} />
      {p.push_block && (
        <rect
          x={Math.min(side(24), side(88))}
          y={end - 60}
          width={64}
          height={58}
          rx={8}
          fill={ink.paper}
          stroke={ink.ink}
          strokeWidth={2}
        />
      )}
    </>
  );
}

const BOARD = 250; // where a crosscut board's edge lies against the gauge
const DEEP = 70; // that it is wide

/** How far the offcut of a crosscut reaches past the blade, px. */
const offcut = (p: SawPlanDrawn) => ({ none: 150, gauge: 150, before: 96, beside: 96, fence: 96 })[p.stop];

const fenceAt = (p: SawPlanDrawn) =>
  X + offcut(p) + (p.stop === 'fence' || p.stop === 'none' ? 0 : p.block_mm * 0.8);

/** A crosscut: the work goes with the gauge, from the left. */
function Across({ p }: { p: SawPlanDrawn }) {
  const reach = offcut(p);
  const at = fenceAt(p);
  return (
    <>
      {p.fence && <rect x={at} y={40} width={28} height={400} {...steel} />}
      {p.stop === 'before' && (
        <rect x={at - p.block_mm * 0.8} y={350} width={p.block_mm * 0.8} height={64} {...steel} />
      )}
      {p.stop === 'beside' && (
        <rect x={at - p.block_mm * 0.8} y={REAR} width={p.block_mm * 0.8} height={230} {...steel} />
      )}
      <g transform={p.gauge ? undefined : `rotate(-4 ${X} ${BOARD})`}>
        <rect
          x={90}
          y={BOARD - DEEP}
          width={X + reach - 90}
          height={DEEP}
          fill={ink.wood}
          fillOpacity={0.85}
          stroke={ink.ink}
          strokeWidth={2}
        />
        {[16, 34, 52].map((y) => (
          <path
            key={y}
            d={`M94 ${BOARD - DEEP + y}q${(X + reach - 90) / 2} 7 ${X + reach - 98} 0`}
            fill="none"
            stroke={ink.grain}
          />
        ))}
      </g>
      <path d={`M${X} ${BOARD - DEEP}V${BOARD}`} stroke={ink.sheet} strokeWidth={9} />
      {p.gauge && (
        <>
          <rect x={X - 76} y={BOARD + 20} width={12} height={160} {...steel} />
          <rect x={86} y={BOARD} width={X - 110} height={22} {...steel} />
          {p.stop === 'gauge' && <rect x={74} y={BOARD - 40} width={16} height={62} {...steel} />}
        </>
      )}
    </>
  );
}

/** Two hands where they hold the work; gloves are thick and cuffed. */
const handSpots = (p: SawPlanDrawn) => {
  const y = p.across ? BOARD + 52 : FRONT + p.hand_mm * NEAR + 34;
  const right = p.fence_side === 'right' ? 1 : -1;
  return p.across
    ? ([
        [X - p.hand_mm * NEAR - 22, y],
        [X - p.hand_mm * NEAR - 66, y],
      ] as const)
    : ([
        [X + right * 56, p.push_block ? y - 26 : y - 14],
        [X - right * 50, y + 10],
      ] as const);
};

function Hands({ p }: { p: SawPlanDrawn }) {
  return handSpots(p).map(([x, at], i) => (
    <g key={i} transform={`translate(${x} ${at})`}>
      {p.gloves ? (
        <>
          <path
            d="M-22 30V-6q0 -18 10 -18t8 8q2 -14 9 -12t5 12q6 -8 11 -2t1 16V30Z"
            fill={ink.accent}
            fillOpacity={0.55}
            stroke={ink.ink}
            strokeWidth={2.2}
          />
          <path
            d="M-24 28h44v16h-44z"
            fill={ink.accent}
            fillOpacity={0.55}
            stroke={ink.ink}
            strokeWidth={2.2}
          />
        </>
      ) : (
        <path
          d="M-15 40V2q-4 -16 3 -16t6 8q0 -16 5 -16t5 14q2 -14 7 -12t3 18q4 -6 7 0t-5 18V40Z"
          fill={ink.paper}
          stroke={ink.ink}
          strokeWidth={2}
        />
      )}
    </g>
  ));
}
