/** A board that is pushed past a blade, seen from above: the blade stands, the board comes from the left. */
import { ink } from './ink';

const W = 1000;
const BLADE = 470; // where the board first meets it
const H = 330;
const TOP = 30;
const FENCE = H - 22; // the board runs along it
const KERF = 150; // where the blade stands across the board

/** A blade from above: its plate with the tips of the teeth on both sides. */
const tips = Array.from({ length: 9 }, (_, i) => `M${BLADE + 6 + i * 18} ${KERF - 4}l7 -3v14l-7 -3z`).join(
  '',
);

interface Props {
  length: number; // of the cut, mm
  mm: number; // of the board's front edge past the blade
  before: number; // mm that it begins before it
  across: boolean; // the grain lies across, and a gauge leads it instead of the fence
}

/** Pixels of the drawing for a millimetre. */
export const boardScale = (length: number, before: number) => BLADE / (length + before);

export function FeedBoard({ length, mm, before, across }: Props) {
  const scale = boardScale(length, before);
  const front = BLADE + mm * scale;
  const long = length * scale;
  const cut = Math.max(0, Math.min(mm, length)) * scale;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" aria-hidden focusable="false" style={{ display: 'block' }}>
      <g transform={`translate(${front - long} 0)`}>
        <rect width={long} y={TOP} height={FENCE - TOP} fill={ink.wood} stroke={ink.ink} strokeWidth={1.5} />
        {[0.12, 0.28, 0.56, 0.72, 0.9].map((at) => (
          <path
            key={at}
            d={
              across
                ? `M${at * long} ${TOP}q${14 - 26 * at} ${(FENCE - TOP) / 4} 2 ${(FENCE - TOP) / 2}t-2 ${(FENCE - TOP) / 2}`
                : `M0 ${TOP + at * (FENCE - TOP)}q${long / 4} ${12 - 22 * at} ${long / 2} 2t${long / 2} -2`
            }
            stroke={ink.grain}
            fill="none"
          />
        ))}
        <rect x={long - cut} y={KERF - 4} width={cut} height={8} fill={ink.sheet} stroke={ink.hair} />
        {across ? (
          <path
            d={`M0 ${KERF + 30}h-14v${FENCE - KERF - 40}h14zM-14 ${KERF + 80}h-${W}v16h${W}z`}
            fill={ink.steel}
            stroke={ink.ink}
          />
        ) : (
          <path
            d={`M0 ${KERF + 40}h${Math.min(70, long / 3)}q14 0 14 14v26q0 14 -14 14h-${Math.min(70, long / 3)}z`}
            fill={ink.mark}
            fillOpacity={0.35}
            stroke={ink.ink}
          />
        )}
      </g>
      <rect x={BLADE} y={KERF - 4} width={170} height={8} rx={4} fill={ink.steel} stroke={ink.ink} />
      <path d={tips} fill={ink.ink} />
      {!across && (
        <rect y={FENCE} width={W} height={14} fill={ink.steel} stroke={ink.ink} strokeWidth={1.5} />
      )}
    </svg>
  );
}
