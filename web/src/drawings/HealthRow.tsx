/** How a blade stands and when it will want something, drawn on one line of time. */
import { t } from '@lingui/core/macro';
import type { BladeCare, Forecast, Urgency } from '../api/types';
import { ink } from './ink';
import { DROP, WEDGE } from './signs';

const DAYS = 120;
const W = 300;
const H = 46;
const DAY = 86_400_000;

interface Props {
  care: BladeCare;
  now: number; // ms
  day: (at: string) => string; // as the shop writes it
}

const X = (it: string | number, now: number) => {
  const days = (new Date(it).getTime() - now) / DAY;
  return 8 + ((W - 16) * Math.max(0, Math.min(DAYS, days))) / DAYS;
};

const beyond = (f: Forecast, now: number) => (new Date(f.likely).getTime() - now) / DAY > DAYS;

export function HealthRow({ care: c, now, day }: Props) {
  const says = [washSaid(c.wash, c.wash_at, day), sharpenSaid(c.sharpen, c.sharpen_at, day)].join('; ');
  return (
    <svg
      width="100%"
      style={{ display: 'block' }}
      viewBox={`0 0 ${W} ${H}`}
      preserveAspectRatio="xMinYMid meet"
      role="img"
      aria-label={says}
    >
      <path d={`M8 34H${W - 8}`} stroke={ink.hair} />
      {[0, 30, 60, 90, 120].map((d) => (
        <path key={d} d={`M${X(now + d * DAY, now)} 31v6`} stroke={ink.hair} />
      ))}
      <Due at={c.wash_at} urgency={c.wash} now={now} y={22} shape="wash" />
      <Due at={c.sharpen_at} urgency={c.sharpen} now={now} y={9} shape="sharpen" />
    </svg>
  );
}

/** When each of both is due, in words. */
const washSaid = (u: Urgency, f: Forecast | undefined, day: Props['day']) =>
  u === 'due' ? t`clean it now` : f ? t`clean it about ${day(f.likely)}` : t`no date yet to clean it`;
const sharpenSaid = (u: Urgency, f: Forecast | undefined, day: Props['day']) =>
  u === 'due' ? t`sharpen it now` : f ? t`sharpen it about ${day(f.likely)}` : t`no date yet to sharpen it`;

/** A drop for a wash, a tooth for a sharpening; a whisker for what two of three fall between. */
function Due({
  at,
  urgency,
  now,
  y,
  shape,
}: {
  at: Forecast | undefined;
  urgency: Urgency;
  now: number;
  y: number;
  shape: 'wash' | 'sharpen';
}) {
  if (!at && urgency !== 'due') return null;
  const x = urgency === 'due' ? 8 : X(at!.likely, now);
  const colour = shape === 'wash' ? ink.scorch : ink.ink;
  const far = at && urgency !== 'due' && beyond(at, now);
  return (
    <g>
      {at && urgency !== 'due' && (
        <path
          d={`M${X(at.early, now)} ${y}H${X(at.late, now)}`}
          stroke={colour}
          strokeWidth={2}
          strokeOpacity={0.6}
        />
      )}
      {far ? (
        <path d={`M${W - 14} ${y - 4}l7 4l-7 4z`} fill={colour} />
      ) : (
        <path
          transform={`translate(${x} ${y})`}
          d={shape === 'wash' ? DROP : WEDGE}
          fill={colour}
          stroke={ink.sheet}
          strokeWidth={1.5}
        />
      )}
    </g>
  );
}

/** The scale of the rows, in days from now. */
export function HealthScale() {
  return (
    <svg
      width="100%"
      height={16}
      viewBox={`0 0 ${W} 16`}
      preserveAspectRatio="xMinYMid meet"
      aria-hidden
      focusable="false"
    >
      {[0, 30, 60, 90, 120].map((d) => (
        <text
          key={d}
          x={8 + ((W - 16) * d) / DAYS}
          y={12}
          fontSize={13}
          fill={ink.mark}
          textAnchor={d === 0 ? 'start' : d === DAYS ? 'end' : 'middle'}
        >
          {d === 0 ? t`now` : d === DAYS ? t`120 days` : d}
        </text>
      ))}
    </svg>
  );
}
