/** The four kinds of cut that somebody is signed off for, in a few lines: filled where they may make it alone. */
import type { SignOffCut } from '../api/types';
import { ink } from './ink';

export function DutyGlyph({ duty, may, size = 30 }: { duty: SignOffCut; may: boolean; size?: number }) {
  const line = { stroke: may ? ink.paper : ink.hair, strokeWidth: 2, fill: 'none' } as const;
  return (
    <svg width={size} height={size} viewBox="0 0 30 30" aria-hidden focusable="false">
      <rect
        x={1.5}
        y={1.5}
        width={27}
        height={27}
        rx={2}
        fill={may ? ink.ink : 'none'}
        stroke={may ? ink.ink : ink.hair}
        strokeWidth={1.5}
        strokeDasharray={may ? undefined : '3 3'}
      />
      {duty === 'rip' && <path d="M5 10H25M5 20H25" {...line} strokeWidth={1.2} strokeOpacity={0.7} />}
      {duty === 'rip' && <path d="M5 15H25" {...line} strokeWidth={3} />}
      {duty === 'crosscut' && (
        <path d="M5 10H25M5 15H25M5 20H25" {...line} strokeWidth={1.2} strokeOpacity={0.7} />
      )}
      {duty === 'crosscut' && <path d="M15 5V25" {...line} strokeWidth={3} />}
      {duty === 'sheet' && <path d="M6 6H24V24H6Z" {...line} strokeWidth={1.2} strokeOpacity={0.7} />}
      {duty === 'sheet' && <path d="M11 6V24" {...line} strokeWidth={3} />}
      {duty === 'groove' && <path d="M5 11H12V18H18V11H25V23H5Z" {...line} />}
    </svg>
  );
}
