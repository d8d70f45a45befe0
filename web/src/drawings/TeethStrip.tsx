/**
 * A stretch of a blade's rim from the side, and its tips from the front: what
 * tells blades apart on a wall.
 */
import { memo } from 'react';
import type { Blade, Grind } from '../api/types';
import { bladePath, tipsPath } from './blade';
import { ink } from './ink';

type Toothed = Pick<
  Blade,
  | 'diameter_mm'
  | 'teeth'
  | 'hook_deg'
  | 'gullet_depth_mm'
  | 'grind'
  | 'bevel_deg'
  | 'kerf_mm'
  | 'group'
  | 'shoulder'
  | 'gullet_shape'
  | 'shear'
>;

const SCALE = 1.5; // px per mm, the same for every blade in a list

interface Props {
  blade: Toothed;
  width?: number;
  height?: number;
}

export const TeethStrip = memo(function TeethStrip({ blade, width = 92, height = 54 }: Props) {
  const r = (blade.diameter_mm / 2) * SCALE;
  const rim = 30;
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden focusable="false">
      <svg x={0} y={0} width={width} height={rim} viewBox={`${-width / 2} ${-r - 2} ${width} ${rim}`}>
        <g transform={`scale(${SCALE})`}>
          <path
            d={bladePath(blade)}
            fill={ink.steel}
            stroke={ink.ink}
            strokeWidth={0.7}
            strokeLinejoin="round"
          />
          {blade.teeth > 0 && <path d={tipsPath(blade)} fill={ink.ink} />}
        </g>
      </svg>
      {blade.grind && <Fronts blade={blade} grind={blade.grind} y={height - 3} width={width} />}
    </svg>
  );
});

/** The tips seen from the front, as they pass one after the other. */
function Fronts({ blade, grind, y, width }: { blade: Toothed; grind: Grind; y: number; width: number }) {
  const shapes = fronts(grind, blade.group ?? 5);
  const k = Math.min(3.2 * blade.kerf_mm, 12);
  const gap = 3;
  const tall = 13;
  const left = (width - shapes.length * (k + gap) + gap) / 2;
  const drop = Math.min(k * Math.tan((blade.bevel_deg * Math.PI) / 180), 8);
  return (
    <g fill={ink.ink}>
      {shapes.map((s, i) => {
        const x = left + i * (k + gap);
        const top = y - tall;
        const at: Record<Tip, string> = {
          flat: `${x},${top} ${x + k},${top}`,
          raker: `${x},${top + 2} ${x + k},${top + 2}`,
          left: `${x},${top} ${x + k},${top + drop}`,
          right: `${x},${top + drop} ${x + k},${top}`,
          chip: `${x},${top + 2.5} ${x + k * 0.28},${top} ${x + k * 0.72},${top} ${x + k},${top + 2.5}`,
          cone: `${x + 1.5},${top} ${x + k - 1.5},${top}`,
        };
        // A face ground askew leans to one side, and the next to the other.
        const lean = blade.shear ? (i % 2 ? 2.2 : -2.2) : 0;
        return <polygon key={i} points={`${at[s]} ${x + k - 0.8 + lean},${y} ${x + 0.8 + lean},${y}`} />;
      })}
    </g>
  );
}

type Tip = 'flat' | 'raker' | 'left' | 'right' | 'chip' | 'cone';

function fronts(grind: Grind, group: number): Tip[] {
  switch (grind) {
    case 'FTG':
      return ['flat', 'flat', 'flat', 'flat'];
    case 'ATB':
    case 'HIATB':
      return ['left', 'right', 'left', 'right'];
    case 'ATBR':
      return [...Array.from({ length: group - 1 }, (_, i): Tip => (i % 2 ? 'right' : 'left')), 'raker'];
    case 'TCG':
      return ['chip', 'raker', 'chip', 'raker'];
    case 'ONEWAY':
      return ['left', 'left', 'left', 'left'];
    case 'CONICAL':
      return ['cone', 'cone', 'cone', 'cone'];
  }
}
