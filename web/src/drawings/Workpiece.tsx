/** The work as it came off the saw, to point at: walls, the face where teeth leave, the end, the groove, the whole. */
import { t } from '@lingui/core/macro';
import type { KeyboardEvent } from 'react';
import type { TraceSign } from '../api/types';
import { ink } from './ink';

export type Place = TraceSign['place'];

interface Props {
  saw: 'table' | 'miter' | 'circular';
  groove: boolean;
  counts: Partial<Record<Place, number>>; // signs seen there
  open: Place | undefined;
  narrow: boolean; // a thumb's width
  onPlace: (p: Place) => void;
}

const names: Record<Place, string> = {
  wall: t`The cut edges`,
  face: t`The exit face`,
  end: t`The end of the cut`,
  shape: t`Its shape and size`,
  groove: t`The groove`,
  feel: t`What you feel and hear`,
  when: t`When it happens`,
};

/** Two halves of a board beside the kerf, in parallel projection; the near half stands open like a book. */
export function Workpiece({ saw, groove, counts, open, narrow, onPlace }: Props) {
  const texts: Record<Place, string> = {
    wall: t`cut edges`,
    end: t`end`,
    face: saw === 'miter' ? t`back, bottom face` : saw === 'circular' ? t`top face` : t`bottom face`,
    groove: t`groove`,
    shape: t`shape, size`,
    feel: t`feel, sound`,
    when: t`when`,
  };
  const label = (p: Place) => (counts[p] ? `${texts[p]} · ${counts[p]}` : texts[p]);
  const zone = (p: Place) => ({
    role: 'button',
    tabIndex: 0,
    'aria-label': `${label(p)}: ${names[p]}`,
    'aria-pressed': open === p,
    onClick: () => onPlace(p),
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === 'Enter' || e.key === ' ') {
        e.preventDefault();
        onPlace(p);
      }
    },
    style: { cursor: 'pointer' },
  });
  const outline = (p: Place) => ({
    stroke: open === p ? ink.accent : ink.ink,
    strokeWidth: open === p ? 3.5 : 1.6,
  });
  const fence = saw === 'circular' ? t`kept half` : t`fence side`;
  // Under a thumb the words keep their size while the work shrinks, and what has no place on it stands below.
  const k = narrow ? 1.4 : 1;
  return (
    <>
      <svg
        viewBox={narrow ? '0 0 520 300' : '0 0 520 330'}
        width="100%"
        style={{ display: 'block', maxWidth: 540 }}
        role="group"
        aria-label={t`The workpiece: tap where the fault is`}
      >
        {/* far half, its wall toward us */}
        <path d="M60 60L330 20L470 60L200 104Z" fill={ink.wood} stroke={ink.ink} strokeWidth={1.6} />
        <path
          d="M90 62Q220 40 335 30M130 74Q270 50 385 40M170 88Q300 66 430 52"
          stroke={ink.grain}
          fill="none"
        />
        <g {...zone('wall')}>
          <path d="M200 104L470 60V118L200 164Z" fill={ink.wood} {...outline('wall')} />
          <path d="M214 122Q330 100 462 82M210 146Q340 122 464 102" stroke={ink.grain} fill="none" />
          <Tag k={k} x={335} y={116} text={label('wall')} seen={counts.wall !== undefined} />
        </g>
        <g {...zone('end')}>
          <path d="M60 60L200 104V164L60 118Z" fill={ink.sheet} {...outline('end')} />
          <path
            d="M72 76Q110 96 150 96M72 96Q120 118 186 128M76 112Q130 136 190 146"
            stroke={ink.grain}
            fill="none"
          />
          <Tag k={k} x={128} y={116} text={label('end')} seen={counts.end !== undefined} />
        </g>
        {/* near half, drawn away, its face down the page where teeth leave */}
        <g {...zone('face')}>
          <path d="M150 220L420 174L500 206L232 256Z" fill={ink.wood} {...outline('face')} />
          <path d="M190 226Q320 200 430 188M220 240Q350 216 468 200" stroke={ink.grain} fill="none" />
          <Tag k={k} x={330} y={214} text={label('face')} seen={counts.face !== undefined} />
        </g>
        <path d="M232 256L500 206V236L232 290Z" fill={ink.wood} stroke={ink.ink} strokeWidth={1.6} />
        <path d="M150 220L232 256V290L150 250Z" fill={ink.sheet} stroke={ink.ink} strokeWidth={1.6} />
        <text x={342} y={18} fontSize={13 * k} fill={ink.mark}>
          {fence}
        </text>
        <text x={500} y={256} fontSize={13 * k} fill={ink.mark} textAnchor="end">{t`offcut`}</text>
        {groove && (
          <g {...zone('groove')}>
            <path d="M30 190H130V250H96V226H64V250H30Z" fill={ink.wood} {...outline('groove')} />
            <Tag k={k} x={80} y={208} text={label('groove')} seen={counts.groove !== undefined} />
          </g>
        )}
        {!narrow && (
          <>
            <g {...zone('shape')}>
              <path d="M12 300H132M12 292v16M132 292v16" fill="none" {...outline('shape')} />
              <rect x={12} y={276} width={120} height={44} fill="transparent" />
              <Tag k={k} x={72} y={300} text={label('shape')} seen={counts.shape !== undefined} />
            </g>
            <g {...zone('feel')}>
              <path d="M170 306q7 -14 14 0t14 0t14 0t14 0" fill="none" {...outline('feel')} />
              <rect x={162} y={284} width={170} height={40} fill="transparent" />
              <Tag k={k} x={286} y={306} text={label('feel')} seen={counts.feel !== undefined} />
            </g>
            <g {...zone('when')}>
              <circle cx={372} cy={304} r={13} fill={ink.sheet} {...outline('when')} />
              <path d="M372 295v9l6 4" fill="none" stroke={ink.ink} strokeWidth={1.6} />
              <rect x={356} y={284} width={110} height={40} fill="transparent" />
              <Tag k={k} x={424} y={304} text={label('when')} seen={counts.when !== undefined} />
            </g>
          </>
        )}
      </svg>
      {narrow && (
        <div style={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 6 }}>
          {(['shape', 'feel', 'when'] as const).map((p) => (
            <button
              key={p}
              type="button"
              aria-label={`${label(p)}: ${names[p]}`}
              aria-pressed={open === p}
              onClick={() => onPlace(p)}
              style={{
                minHeight: 48,
                font: 'inherit',
                fontSize: 16,
                fontWeight: counts[p] ? 700 : 500,
                color: ink.ink,
                background: ink.sheet,
                border: `${open === p ? 3 : 1.5}px solid ${open === p ? ink.accent : ink.ink}`,
              }}
            >
              {label(p)}
            </button>
          ))}
        </div>
      )}
    </>
  );
}

/** A name on a paper gap, as on a drawing; with the number of signs seen there. */
function Tag({ x, y, text, seen, k }: { x: number; y: number; text: string; seen: boolean; k: number }) {
  const w = (text.length * 7.4 + 12) * k;
  return (
    <g>
      <rect x={x - w / 2} y={y - 11 * k} width={w} height={22 * k} fill={ink.paper} fillOpacity={0.92} />
      <text
        x={x}
        y={y + 0.5}
        fontSize={14 * k}
        fontWeight={seen ? 700 : 500}
        textAnchor="middle"
        dominantBaseline="central"
        fill={ink.ink}
      >
        {text}
      </text>
    </g>
  );
}
