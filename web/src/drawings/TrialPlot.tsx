/** Every piece of a comparison as a dot, setting by setting, in each measure. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Trial } from '../api/types';
import { ink } from './ink';
import { effortWords, splinterWords, wallWords } from './recordWords';

const W = 250;
const ROW = 30;

type Run = Trial['runs'][number];

const measures: {
  name: string;
  scale: readonly string[];
  words: readonly string[];
  of: (r: Run) => string | undefined;
}[] = [
  {
    name: t`Cut edge`,
    scale: ['clean', 'brown', 'black'],
    words: Object.values(wallWords),
    of: (r) => r.wall,
  },
  {
    name: t`Tear-out`,
    scale: ['none', 'fuzz', 'splinters', 'torn'],
    words: Object.values(splinterWords),
    of: (r) => r.splinters,
  },
  {
    name: t`Feed`,
    scale: ['easy', 'normal', 'hard'],
    words: Object.values(effortWords),
    of: (r) => r.effort,
  },
];

export function TrialPlot({ trial: it }: { trial: Trial }) {
  const h = it.settings.length * ROW + 26;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3 }}>
      {measures.map((m) => {
        const X = (i: number) => 34 + (i * (W - 60)) / (m.scale.length - 1);
        return (
          <Box key={m.name} component="figure" sx={{ m: 0 }}>
            <Box component="figcaption" sx={{ fontWeight: 650 }}>
              {m.name}
            </Box>
            <svg width={W} height={h} role="img" aria-label={t`${m.name}, by piece`}>
              {m.scale.map((s, i) => (
                <g key={s}>
                  <path d={`M${X(i)} 4V${h - 22}`} stroke={ink.hair} strokeDasharray="2 3" />
                  <text x={X(i)} y={h - 6} fontSize={12.5} textAnchor="middle" fill={ink.mark}>
                    {m.words[i]}
                  </text>
                </g>
              ))}
              {it.settings.map((_, s) => {
                const seen: Record<string, number> = {};
                return (
                  <g key={s} transform={`translate(0 ${s * ROW + 18})`}>
                    <text x={4} y={5} fontSize={16} fontWeight={700} fill={ink.ink}>
                      {String.fromCharCode(65 + s)}
                    </text>
                    {it.runs
                      .filter((r) => r.setting === s)
                      .map((r) => {
                        const v = m.of(r) ?? '';
                        const n = (seen[v] = (seen[v] ?? 0) + 1) - 1;
                        return (
                          <circle
                            key={r.piece}
                            cx={X(m.scale.indexOf(v)) + (n % 2 ? 1 : -1) * Math.ceil(n / 2) * 8}
                            cy={0}
                            r={4.5}
                            fill={ink.ink}
                            fillOpacity={0.75}
                          />
                        );
                      })}
                  </g>
                );
              })}
            </svg>
          </Box>
        );
      })}
    </Box>
  );
}
