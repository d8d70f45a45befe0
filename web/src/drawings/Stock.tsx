/** Materials told apart by drawn grain: fills for a section of the work. */
import type { ReactNode } from 'react';
import type { Direction, Material } from '../api/types';
import { ink } from './ink';

export type Grain = 'along' | 'end' | 'ply' | 'chips' | 'faced' | 'plain';

export function grainOf(material: Material | undefined, direction: Direction): Grain {
  switch (material?.kind) {
    case 'softwood':
    case 'hardwood':
    case 'nailed':
      return direction === 'rip' ? 'along' : 'end';
    case 'plywood':
      return 'ply';
    case 'composite':
      return 'chips';
    case 'laminate':
      return 'faced';
    default:
      return 'plain';
  }
}

/** A pattern of the grain, in pixels; thickness is that of the section on paper. */
export function GrainPattern({ id, grain, thickness }: { id: string; grain: Grain; thickness: number }) {
  const line = { stroke: ink.grain, strokeWidth: 1, fill: 'none' };
  const body: Record<Grain, ReactNode> = {
    along: (
      <>
        <path
          d="M0 5Q40 3 80 6T160 5M0 13Q50 16 90 12T160 13M0 20Q30 18 80 21T160 20M0 28Q60 25 100 29T160 28"
          {...line}
        />
        <path d="M20 9.500H70M95 17H140M10 24.500H50" {...line} strokeOpacity={0.7} />
      </>
    ),
    end: (
      <>
        <path
          d="M0 30Q40 6 80 30M80 30Q120 6 160 30M0 20Q40 -4 80 20M80 20Q120 -4 160 20M0 10Q40 -14 80 10M80 10Q120 -14 160 10M0 40Q40 16 80 40M80 40Q120 16 160 40"
          {...line}
        />
      </>
    ),
    ply: (
      <>
        {[0, 2, 4].map((i) => (
          <rect
            key={i}
            x={0}
            y={(i * thickness) / 5}
            width={160}
            height={thickness / 5}
            fill={ink.grain}
            fillOpacity={i % 4 === 0 ? 0.3 : 0.5}
          />
        ))}
        {[1, 2, 3, 4].map((i) => (
          <path key={i} d={`M0 ${(i * thickness) / 5}H160`} {...line} />
        ))}
      </>
    ),
    chips: (
      <path
        d="M6 5h5M22 9h3M37 4h4M52 11h5M70 6h3M84 12h5M101 5h4M118 10h3M133 6h5M149 12h4M12 17h4M29 21h5M46 18h3M61 23h4M77 18h5M94 22h3M110 18h5M127 23h4M143 19h4M4 27h3M20 30h5M38 28h3M55 31h4M86 29h4M104 30h3M136 29h5"
        {...line}
        strokeWidth={1.6}
      />
    ),
    faced: (
      <>
        <path
          d="M6 8h5M37 9h4M70 8h3M101 9h4M133 8h5M12 17h4M46 18h3M77 18h5M110 18h5M143 19h4M20 27h5M55 28h4M104 27h3"
          {...line}
          strokeWidth={1.6}
        />
        <rect x={0} y={0} width={160} height={2.5} fill={ink.ink} />
        <rect x={0} y={thickness - 2.5} width={160} height={2.5} fill={ink.ink} />
      </>
    ),
    plain: null,
  };
  const layered = grain === 'ply' || grain === 'faced';
  return (
    <pattern
      id={id}
      width={160}
      height={layered ? thickness : grain === 'end' ? 10 : 32}
      patternUnits="userSpaceOnUse"
    >
      <rect width={160} height={thickness + 32} fill={ink.wood} />
      {body[grain]}
    </pattern>
  );
}
