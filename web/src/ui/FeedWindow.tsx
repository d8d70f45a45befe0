/**
 * The feed window: from scorch through clean to splinter or bog, on one scale of
 * seconds for 300 mm or for a foot, slow on the left. What is clean is left
 * bare, so the window reads without colour: scorch is a brown wash, splinter a
 * hatch, bog a dotted weight, the hand's own limits a plain tint.
 */
import { wordOf } from '../drawings/codeWords';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import { useId } from 'react';
import type { Setting } from '../api/types';
import { ink } from '../drawings/ink';
import { trim } from '../measure/format';
import { FASTEST, SLOWEST, type Stretch } from './feed';

/** Where a feed stands on the scale, 0 to 100. */
const place = (feed: number) =>
  Math.max(0, Math.min(100, (100 * Math.log(feed / SLOWEST)) / Math.log(FASTEST / SLOWEST)));

const words = {
  scorch: t`burns`,
  hand: t`hard to control`,
  bog: t`bogs down`,
  splinter: t`tear-out`,
  gullet: t`gullets full`,
  wall: t`saw marks`,
  shoulder: t`shoulders`,
} as const;

export function FeedScale({ stretch: { metres, name, ticks } }: { stretch: Stretch }) {
  return (
    <Box
      aria-hidden
      sx={{ position: 'relative', height: 20, fontSize: 12.5, color: 'text.secondary', fontWeight: 500 }}
    >
      <Box sx={{ position: 'absolute', right: '100%', pr: 1, whiteSpace: 'nowrap' }}>
        {t`seconds for ${name}`}
      </Box>
      {ticks.map((s) => (
        <Box
          key={s}
          sx={{
            position: 'absolute',
            left: `${place((metres * 60) / s)}%`,
            transform: 'translateX(-50%)',
            whiteSpace: 'nowrap',
          }}
        >
          {s}
        </Box>
      ))}
    </Box>
  );
}

interface Props {
  setting: Pick<Setting, 'window' | 'feed_m_min' | 'fade' | 'hedge'>;
  stretch: Stretch;
  tall?: boolean;
}

export function FeedWindow({ setting, stretch: { metres, name }, tall = false }: Props) {
  const { window: w, feed_m_min: feed, fade } = setting;
  const id = useId();
  const seconds = (f: number) => trim((metres * 60) / f, 1);
  const low = place(w.slowest_m_min);
  const high = place(w.fastest_m_min);
  // Full as far as what is known goes, then fading over what is not.
  const slow = { sure: place(fade.slow_from_m_min), end: place(fade.slow_to_m_min) };
  const fast = { end: place(fade.fast_from_m_min), sure: place(fade.fast_to_m_min) };
  const h = tall ? 34 : 18;
  const says =
    t`Feed range ${wordOf(w.grade)}. Slowest ${seconds(w.slowest_m_min)} seconds for ${name}: ${words[w.slow_by]}. Fastest ${seconds(w.fastest_m_min)} seconds: ${words[w.fast_by]}.` +
    (setting.hedge ? ` ${t`How sure: ${setting.hedge}.`}` : '');
  return (
    <Box role="img" aria-label={says} sx={{ position: 'relative' }}>
      <svg width="100%" height={h} style={{ display: 'block' }} aria-hidden focusable="false">
        <Washes id={id} />
        <defs>
          <Ramp id={`${id}l`} from={slow.sure} to={slow.end} rising={false} />
          <Ramp id={`${id}r`} from={fast.end} to={fast.sure} rising />
          <mask id={`${id}ml`} maskContentUnits="userSpaceOnUse">
            <rect width="100%" height={h} fill={`url(#${id}l)`} />
          </mask>
          <mask id={`${id}mr`} maskContentUnits="userSpaceOnUse">
            <rect width="100%" height={h} fill={`url(#${id}r)`} />
          </mask>
        </defs>
        <rect
          width="100%"
          height={h}
          mask={`url(#${id}ml)`}
          fill={w.slow_by === 'scorch' ? `url(#${id}s)` : ink.hair}
          fillOpacity={w.slow_by === 'scorch' ? 1 : 0.22}
        />
        <rect
          width="100%"
          height={h}
          mask={`url(#${id}mr)`}
          fill={fastFills[w.fast_by] ? `url(#${id}${fastFills[w.fast_by]})` : ink.hair}
          fillOpacity={w.fast_by === 'hand' ? 0.22 : 0.75}
        />
        <line x1={0} x2="100%" y1={h - 0.5} y2={h - 0.5} stroke={ink.hair} />
        <line x1={0} x2="100%" y1={0.5} y2={0.5} stroke={ink.hair} />
        <line x1={`${low}%`} x2={`${low}%`} y1={0} y2={h} stroke={ink.ink} strokeWidth={2} />
        <line x1={`${high}%`} x2={`${high}%`} y1={0} y2={h} stroke={ink.ink} strokeWidth={2} />
        <svg x={`${place(feed)}%`} y={0} width={1} height={h} overflow="visible">
          <path d={`M-5.500 0H5.500L0 8Z`} fill={ink.ink} stroke={ink.paper} strokeWidth={1.5} />
          <path d={`M0 6V${h}`} stroke={ink.ink} strokeWidth={1.5} />
        </svg>
      </svg>
      {tall && (
        <Box
          aria-hidden
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            fontSize: 13.5,
            color: 'text.secondary',
            mt: 0.25,
          }}
        >
          <span>
            <Trans>
              {words[w.slow_by]} if slower than <b>{seconds(w.slowest_m_min)} s</b>
            </Trans>
          </span>
          <span>
            <Trans>
              {words[w.fast_by]} if faster than <b>{seconds(w.fastest_m_min)} s</b>
            </Trans>
          </span>
        </Box>
      )}
    </Box>
  );
}

/** What lies past the quick end, by the pattern that stands for it. */
const fastFills: Partial<Record<keyof typeof words, string>> = {
  splinter: 'h',
  bog: 'd',
  gullet: 'g',
  wall: 'w',
  shoulder: 'g',
};

/** White where an end is sure, fading to nothing where the window is. Places are 0 to 100. */
function Ramp({ id, from, to, rising }: { id: string; from: number; to: number; rising: boolean }) {
  return (
    <linearGradient id={id}>
      <stop offset={`${from}%`} stopColor="#fff" stopOpacity={rising ? 0 : 1} />
      <stop offset={`${Math.max(from, to)}%`} stopColor="#fff" stopOpacity={rising ? 1 : 0} />
    </linearGradient>
  );
}

/** The washes and hatches of the window's ends, under ids that begin with id. */
function Washes({ id }: { id: string }) {
  return (
    <defs>
      <linearGradient id={`${id}s`}>
        <stop offset="0" stopColor={ink.scorch} stopOpacity={0.85} />
        <stop offset="1" stopColor={ink.scorch} stopOpacity={0.3} />
      </linearGradient>
      <pattern id={`${id}h`} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
        <path d="M0 0V5" stroke={ink.ink} strokeWidth={2.2} />
      </pattern>
      <pattern id={`${id}d`} width={6} height={6} patternUnits="userSpaceOnUse">
        <circle cx={1.5} cy={1.5} r={1.35} fill={ink.ink} />
        <circle cx={4.5} cy={4.5} r={1.35} fill={ink.ink} />
      </pattern>
      <pattern id={`${id}w`} width={6} height={6} patternUnits="userSpaceOnUse">
        <path d="M3 0V6" stroke={ink.ink} strokeWidth={1.4} />
      </pattern>
      <pattern id={`${id}g`} width={7} height={7} patternUnits="userSpaceOnUse">
        <path d="M0 3.500H7M3.500 0V7" stroke={ink.ink} strokeWidth={1} />
      </pattern>
    </defs>
  );
}

/** What each end of a window means. */
export function FeedLegend() {
  const id = useId();
  const ends = [
    { name: t`burning`, fill: `url(#${id}s)`, opacity: 1 },
    { name: t`tear-out`, fill: `url(#${id}h)`, opacity: 0.75 },
    { name: t`bogs down`, fill: `url(#${id}d)`, opacity: 0.75 },
    { name: t`saw marks`, fill: `url(#${id}w)`, opacity: 0.75 },
    { name: t`hard to control`, fill: ink.hair, opacity: 0.22 },
    { name: t`clean`, fill: 'none', opacity: 1 },
  ];
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 2,
        rowGap: 0.5,
        fontSize: 13.5,
        color: 'text.secondary',
      }}
    >
      <svg width={0} height={0} aria-hidden focusable="false">
        <Washes id={id} />
      </svg>
      {ends.map((e) => (
        <Box key={e.name} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <svg width={26} height={12} aria-hidden focusable="false">
            <rect width={26} height={12} fill={e.fill} fillOpacity={e.opacity} stroke={ink.hair} />
          </svg>
          {e.name}
        </Box>
      ))}
    </Box>
  );
}
