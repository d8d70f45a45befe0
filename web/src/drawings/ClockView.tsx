/** A stack from the nut's side: chippers in the gullets of the outer blade, turned against each other. */
import { t } from '@lingui/core/macro';
import type { GrooveWay } from '../api/types';
import { bladePath, circle, tipsPath } from './blade';
import { ink } from './ink';

export function ClockView({ way, size = 220 }: { way: GrooveWay; size?: number }) {
  const teeth = way.teeth ?? 24;
  const shape = { diameter_mm: 200, teeth, hook_deg: 8, gullet_depth_mm: 13 };
  const wings = way.wings ?? 2;
  const chippers = way.slots.filter((s) => s.what === 'chipper');
  return (
    <svg
      width={size}
      height={size}
      viewBox="-112 -112 224 224"
      role="img"
      aria-label={
        chippers.length > 0
          ? t`Chippers turned ${chippers.map((c) => `${Math.round(c.turned_deg)}°`).join(', ')} from the outer blades, their teeth in the gullets. Teeth toward you at the top.`
          : t`Only the two outer blades, teeth toward you at the top`
      }
      style={{ display: 'block', maxWidth: '100%' }}
    >
      <path d={bladePath(shape)} fill={ink.steel} stroke={ink.ink} strokeWidth={1.1} />
      <path d={tipsPath(shape)} fill={ink.ink} />
      {chippers.map((c, i) => (
        <g key={i} transform={`rotate(${-c.turned_deg})`}>
          {Array.from({ length: wings }, (_, w) => (
            <g key={w} transform={`rotate(${(w * 360) / wings})`}>
              <path
                d="M-12 0L-7 -92L5 -92L12 0Z"
                fill={ink.paper}
                stroke={ink.accent}
                strokeWidth={1.6}
                fillOpacity={0.85}
              />
              <path d="M-8 -98h7v9h-7Z" fill={ink.accent} />
              {w === 0 && (
                <text
                  transform={`translate(0 -60) rotate(${c.turned_deg})`}
                  textAnchor="middle"
                  dominantBaseline="central"
                  fontSize={15}
                  fontWeight={700}
                  fill={ink.ink}
                >
                  {i + 1}
                </text>
              )}
            </g>
          ))}
        </g>
      ))}
      <path d={circle(10)} fill={ink.sheet} stroke={ink.ink} />
    </svg>
  );
}
