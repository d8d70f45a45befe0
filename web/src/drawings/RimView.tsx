/** The rim of a blade at the top, large, turned by so many teeth; one of them may not be like the others. */
import type { DrawnBlade, OddTooth } from '../api/types';
import { bladePath, tipsPath } from './blade';
import { ink } from './ink';

interface Props {
  blade: DrawnBlade;
  turn: number; // teeth that passed the mark
  odd?: OddTooth | undefined;
  chalk?: boolean; // on the first tooth
}

const WIDE = 104; // mm of the rim that are seen
const OVER = 9;
const DEEP = 36;

export function RimView({ blade, turn, odd, chalk = false }: Props) {
  const r = blade.diameter_mm / 2;
  const step = 360 / blade.teeth;
  const pitch = (Math.PI * blade.diameter_mm) / blade.teeth;
  return (
    <svg
      viewBox={`${-WIDE / 2} ${-r - OVER} ${WIDE} ${OVER + DEEP}`}
      width="100%"
      aria-hidden
      focusable="false"
      style={{ display: 'block', maxHeight: 340 }}
    >
      <g transform={`rotate(${-turn * step})`}>
        <path d={bladePath(blade)} fill={ink.steel} stroke={ink.ink} strokeWidth={0.5} />
        <path d={tipsPath(blade)} fill={ink.ink} />
        {chalk && <circle cx={pitch * 0.25} cy={-r + blade.gullet_depth_mm + 5} r={2.4} fill={ink.accent} />}
        {odd && (
          <g transform={`rotate(${odd.tooth * step})`}>
            <Odd what={odd.what} r={r} pitch={pitch} deep={blade.gullet_depth_mm} />
          </g>
        )}
      </g>
      <path
        d={`M0 ${-r - OVER + 1}v5m-2 -2.500l2 2.500l2 -2.500`}
        fill="none"
        stroke={ink.accent}
        strokeWidth={1}
      />
    </svg>
  );
}

/** One tooth in place of the one that stands at the top. */
function Odd({ what, r, pitch, deep }: { what: OddTooth['what']; r: number; pitch: number; deep: number }) {
  const wide = Math.min(0.16 * pitch, 2.6);
  if (what === 'chipped')
    return (
      <>
        <path
          d={`M-1.500 ${-r - 1}h${wide + 2.2}l-1.100 2.400l-1.200 -0.500l-0.700 1.500l-1.200 0.400z`}
          fill={ink.sheet}
        />
        <path
          d={`M-0.100 ${-r + 2.8}l0.500 -0.500l0.700 -1.400l1.200 0.400l0.800 -1.600`}
          fill="none"
          stroke={ink.ink}
          strokeWidth={0.4}
        />
      </>
    );
  if (what === 'proud')
    return <path d={`M0 ${-r + 1}V${-r - 1.9}L${wide + 0.4} ${-r - 1.4}V${-r + 1}Z`} fill={ink.ink} />;
  const back = 0.5 * pitch;
  return (
    <>
      <rect x={-0.14 * pitch} y={-r - 2} width={0.72 * pitch} height={deep + 1} fill={ink.sheet} />
      <path
        d={`M${-0.16 * pitch} ${-r + deep}Q${-0.02 * pitch} ${-r + 0.55 * deep} ${0.1 * pitch} ${-r + 0.4 * deep}L${back - wide} ${-r + 0.3}L${back} ${-r}L${back - 0.2} ${-r + 0.7 * deep}Q${back} ${-r + deep} ${0.62 * pitch} ${-r + deep}Z`}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={0.5}
      />
      <path d={`M${back} ${-r}V${-r + 5}h${-wide}V${-r + 0.4}Z`} fill={ink.ink} />
    </>
  );
}
