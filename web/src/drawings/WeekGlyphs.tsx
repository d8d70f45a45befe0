/** What happened at a place on one day, as small glyphs in a row: cuts as a bar of metres, the rest as a sign each. */
import { ink } from './ink';
import { DROP, WEDGE } from './signs';

export interface DayGlyphs {
  metres: number;
  changed: boolean; // a blade went on or came off
  washed: boolean;
  sharpened: boolean; // sent, or back
  measured: boolean;
  burnt: boolean;
  splintery: boolean;
  noted: boolean; // looked at, compared, traced, or a remark
}

interface Props extends DayGlyphs {
  most: number; // metres of the longest day that is shown
}

const W = 84;
const H = 30;

export function WeekGlyphs({ metres, most, ...d }: Props) {
  const signs = (
    ['changed', 'washed', 'sharpened', 'measured', 'burnt', 'splintery', 'noted'] as const
  ).filter((k) => d[k]);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      style={{ display: 'block', width: '100%', height: H }}
      preserveAspectRatio="xMinYMid meet"
      aria-hidden
      focusable="false"
    >
      {metres > 0 && (
        <rect x={2} y={21} width={Math.max(3, (80 * metres) / Math.max(most, 1))} height={6} fill={ink.ink} />
      )}
      {signs.map((k, i) => (
        <g key={k} transform={`translate(${9 + i * 17} 10)`}>
          {signOf[k]}
        </g>
      ))}
    </svg>
  );
}

/** Also what the key beside it shows. */
export const signOf: Record<Exclude<keyof DayGlyphs, 'metres'>, React.ReactNode> = {
  changed: (
    <g fill="none" stroke={ink.ink} strokeWidth={1.8}>
      <circle r={6} />
      <circle r={1.6} />
    </g>
  ),
  washed: <path d={DROP} fill="none" stroke={ink.ink} strokeWidth={1.6} />,
  sharpened: <path d={WEDGE} fill={ink.ink} />,
  measured: <path d="M-6 6V-6M-6 0H6M6 6V-6" stroke={ink.ink} strokeWidth={1.6} fill="none" />,
  burnt: <circle r={5} fill={ink.scorch} />,
  splintery: <path d="M-6 5L-2 -5M-1 6L2 -6M4 5L7 -4" stroke={ink.ink} strokeWidth={1.6} />,
  noted: (
    <path d="M-6 -5H6V3H0L-4 7V3H-6Z" fill="none" stroke={ink.ink} strokeWidth={1.6} strokeLinejoin="round" />
  ),
};
