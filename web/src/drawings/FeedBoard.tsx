/** Work that is pushed past a blade, seen from above, its wall browning behind the blade; or a saw that is led over it. */
import type { PracticeBoard } from '../api/types';
import { ink } from './ink';
import { burn, char, runs } from './PracticeWall';

const W = 1000;
const BLADE = 470; // where the board first meets it
const LED = 200; // where a led saw first meets the board
const H = 330;
const TOP = 30;
const FENCE = H - 22; // the board runs along it
const KERF = 150; // where the blade stands across the board
const SHOE = 190; // of a led saw

/** A blade from above: its plate with the tips of the teeth on both sides. */
const tips = (x: number) =>
  Array.from({ length: 9 }, (_, i) => `M${x + 6 + i * 18} ${KERF - 4}l7 -3v14l-7 -3z`).join('');

interface Props {
  board: PracticeBoard;
  mm: number; // of the front edge past the blade
  before: number; // mm that it begins before it
  scorch: number[]; // of each millimetre that was cut
  splinter: number[]; // the same
  spent: boolean; // the hands are at the end of their reach
}

/** Pixels of the drawing for a millimetre. */
export const boardScale = ({ length_mm, hand_held }: PracticeBoard, before: number) =>
  hand_held ? (W - LED - 40) / length_mm : BLADE / (length_mm + before);

export function FeedBoard({ board, mm, before, scorch, splinter, spent }: Props) {
  const scale = boardScale(board, before);
  const long = board.length_mm * scale;
  const cut = Math.max(0, Math.min(mm, board.length_mm)) * scale;
  const left = board.hand_held ? LED : BLADE + mm * scale - long; // of the board
  const at = board.hand_held ? LED + mm * scale : BLADE; // of the blade's front
  const way = board.hand_held ? 1 : -1; // in which the cut goes along the board, drawn
  const into = (i: number) => (board.hand_held ? i * scale : long - i * scale); // along the board
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" aria-hidden focusable="false" style={{ display: 'block' }}>
      <g transform={`translate(${left} 0)`}>
        <rect width={long} y={TOP} height={FENCE - TOP} fill={ink.wood} stroke={ink.ink} strokeWidth={1.5} />
        {[0.12, 0.28, 0.56, 0.72, 0.9].map((share) => (
          <path
            key={share}
            d={
              board.across
                ? `M${share * long} ${TOP}q${14 - 26 * share} ${(FENCE - TOP) / 4} 2 ${(FENCE - TOP) / 2}t-2 ${(FENCE - TOP) / 2}`
                : `M0 ${TOP + share * (FENCE - TOP)}q${long / 4} ${12 - 22 * share} ${long / 2} 2t${long / 2} -2`
            }
            stroke={ink.grain}
            fill="none"
          />
        ))}
        {runs(scorch, burn).map(
          (r) =>
            r.look > 0 && (
              <rect
                key={r.from}
                className="burnt"
                x={Math.min(into(r.from), into(r.to))}
                width={(r.to - r.from) * scale}
                y={KERF - 16}
                height={32}
                fill={r.look >= 0.8 ? char : ink.scorch}
                fillOpacity={0.3 + 0.6 * r.look}
              />
            ),
        )}
        {runs(splinter, (s) => (s > 1 ? 1 : 0)).map(
          (r) =>
            r.look > 0 && (
              <path
                key={r.from}
                className="torn"
                d={Array.from(
                  { length: Math.ceil((r.to - r.from) / 8) },
                  (_, i) =>
                    `M${into(r.from + 8 * i)} ${KERF - 4}l${5 * way} -11l${3 * way} 11M${into(r.from + 8 * i)} ${KERF + 4}l${5 * way} 11l${3 * way} -11`,
                ).join('')}
                fill={ink.sheet}
                stroke={ink.ink}
                strokeWidth={0.8}
              />
            ),
        )}
        <rect
          x={board.hand_held ? 0 : long - cut}
          y={KERF - 4}
          width={cut}
          height={8}
          fill={ink.sheet}
          stroke={ink.hair}
        />
        {!board.hand_held && <Led across={board.across} long={long} spent={spent} />}
      </g>
      {board.hand_held ? (
        <Saw at={at} spent={spent} />
      ) : (
        <>
          <rect x={BLADE} y={KERF - 4} width={170} height={8} rx={4} fill={ink.steel} stroke={ink.ink} />
          <path d={tips(BLADE)} fill={ink.ink} />
          {!board.across && (
            <rect y={FENCE} width={W} height={14} fill={ink.steel} stroke={ink.ink} strokeWidth={1.5} />
          )}
        </>
      )}
    </svg>
  );
}

/** What leads a board: a gauge behind it, or a push block on it. */
function Led({ across, long, spent }: { across: boolean; long: number; spent: boolean }) {
  return across ? (
    <path
      d={`M0 ${KERF + 30}h-14v${FENCE - KERF - 40}h14zM-14 ${KERF + 80}h-${W}v16h${W}z`}
      fill={ink.steel}
      stroke={spent ? ink.accent : ink.ink}
      strokeWidth={spent ? 3 : 1}
    />
  ) : (
    <path
      d={`M0 ${KERF + 40}h${Math.min(70, long / 3)}q14 0 14 14v26q0 14 -14 14h-${Math.min(70, long / 3)}z`}
      fill={ink.mark}
      fillOpacity={0.35}
      stroke={spent ? ink.accent : ink.ink}
      strokeWidth={spent ? 3 : 1}
    />
  );
}

/** A hand-held saw from above: shoe, blade and the motor beside it. */
function Saw({ at, spent }: { at: number; spent: boolean }) {
  return (
    <g>
      <rect
        x={at - SHOE + 20}
        y={KERF - 34}
        width={SHOE}
        height={124}
        rx={8}
        fill={ink.paper}
        fillOpacity={0.8}
        stroke={spent ? ink.accent : ink.ink}
        strokeWidth={spent ? 4 : 2}
      />
      <rect x={at - 150} y={KERF - 4} width={150} height={8} rx={4} fill={ink.steel} stroke={ink.ink} />
      <rect
        x={at - 140}
        y={KERF + 16}
        width={86}
        height={62}
        rx={14}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={2}
      />
      <path
        d={`M${at - 130} ${KERF + 47}h-60q-12 0 -12 -12`}
        fill="none"
        stroke={ink.ink}
        strokeWidth={14}
        strokeLinecap="round"
      />
    </g>
  );
}
