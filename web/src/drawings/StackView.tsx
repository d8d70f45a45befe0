/** A dado stack on its arbor, from above: flange, parts in their order, washer, nut, and what thread is left. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { GrooveWay, Units } from '../api/types';
import { formatThin } from '../measure/format';
import { useSize } from './useSize';
import { ink } from './ink';
import { Label, widthOf } from './Label';

interface Props {
  way: GrooveWay;
  units: Units;
}

const tall = { left: 74, right: 74, chipper: 66, shim: 34 } as const;
/** A shim is drawn at least this wide, or it would be a hairline. */
const FIGURE = 12.5; // px
const THINNEST = 5;

export function StackView(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  return <Box ref={ref}>{width > 0 && <Drawing {...p} px={width} />}</Box>;
}

function Drawing({ way, units, px }: Props & { px: number }) {
  const a = way.arbor;
  const washer = a && !a.washer_off ? a.washer_mm : 0;
  const onIt = (a?.set_mm ?? way.width_mm ?? 0) + washer + (a?.nut_mm ?? 0);
  const length = Math.max(a?.length_mm ?? onIt + 4, onIt);
  const start = 46;
  const scale = (px - start - 40) / (length + 3);
  const middle = 98;
  const mm = (v: number) => v * scale;
  const parts = way.slots.reduce<{ x: number; w: number; slot: (typeof way.slots)[number] }[]>(
    (all, slot) => {
      const before = all.at(-1);
      const x = before ? before.x + before.w : start;
      return [...all, { x, w: Math.max(THINNEST, mm(slot.thickness_mm)), slot }];
    },
    [],
  );
  const last = parts.at(-1);
  const end = last ? last.x + last.w : start + mm(way.width_mm ?? 0);
  const steel = { fill: ink.steel, stroke: ink.ink, strokeWidth: 1.4 };
  const names = way.slots.map((s) => `${s.what} ${formatThin(s.thickness_mm, units)}`).join(', ');
  // Figures of neighbours stand in rows of their own, so that thin parts have room for theirs.
  const saysOf = ({ slot }: (typeof parts)[number]) =>
    slot.what === 'left' || slot.what === 'right'
      ? slot.what
      : formatThin(slot.thickness_mm, units).replace(' mm', '');
  const taken: number[] = []; // up to where, by row
  const placed = parts.map((part) => {
    const half = widthOf(saysOf(part), FIGURE) / 2 + 3;
    const at = part.x + part.w / 2;
    const free = taken.findIndex((until) => until < at - half);
    const row = free < 0 ? taken.length : free;
    taken[row] = at + half;
    return row;
  });
  const rowAt = (row: number) => 186 + 15 * row;
  return (
    <svg
      width={px}
      height={rowAt(taken.length)}
      role="img"
      aria-label={t`On the arbor, from the inner flange out: ${names || way.says}. ${a?.says ?? ''}`}
      style={{ display: 'block' }}
    >
      <rect x={start} y={middle - 9} width={mm(length)} height={18} fill={ink.sheet} stroke={ink.ink} />
      <path
        d={Array.from(
          { length: Math.floor(mm(length) / 7) },
          (_, i) => `M${start + 4 + i * 7} ${middle - 9}l3 18`,
        ).join('')}
        stroke={ink.hair}
        strokeWidth={0.8}
      />
      <path d={`M${start - 14} ${middle - 34}h14v68h-14Z`} {...steel} />
      <Label x={start - 3} y={middle - 46} anchor="end" size={13}>{t`flange`}</Label>
      {parts.length === 0 && (
        <rect x={start} y={middle - 74} width={end - start} height={148} {...steel} fillOpacity={0.9} />
      )}
      {parts.map(({ x, w, slot }, i) => {
        const h = tall[slot.what];
        return (
          <g key={i}>
            <rect
              x={x}
              y={middle - h}
              width={w}
              height={2 * h}
              fill={slot.what === 'shim' ? ink.accent : ink.steel}
              stroke={ink.ink}
              strokeWidth={slot.what === 'shim' ? 0.8 : 1.4}
            />
            {slot.what !== 'shim' && (
              <path
                d={`M${x} ${middle - h}h${w}v7h${-w}ZM${x} ${middle + h}h${w}v-7h${-w}Z`}
                fill={ink.ink}
              />
            )}
            <path
              d={`M${x + w / 2} ${middle + h}V${rowAt(placed[i]!) - 8}`}
              stroke={ink.hair}
              strokeWidth={0.7}
              strokeDasharray="2 2"
            />
            <Label x={x + w / 2} y={rowAt(placed[i]!)} size={FIGURE}>
              {saysOf(parts[i]!)}
            </Label>
          </g>
        );
      })}
      {washer > 0 && <rect x={end} y={middle - 30} width={mm(washer)} height={60} {...steel} />}
      {a && a.nut_mm > 0 && (
        <g>
          <rect x={end + mm(washer)} y={middle - 22} width={mm(a.nut_mm)} height={44} {...steel} />
          <path
            d={`M${end + mm(washer)} ${middle - 8}h${mm(a.nut_mm)}M${end + mm(washer)} ${middle + 8}h${mm(a.nut_mm)}`}
            stroke={ink.ink}
          />
          <Label x={end + mm(washer) + mm(a.nut_mm) / 2} y={middle - 36} size={13}>{t`nut`}</Label>
        </g>
      )}
      {a?.length_mm !== undefined && a.spare_mm > 0 && (
        <Label x={start + mm(length)} y={middle + 38} anchor="end" size={13}>
          {t`${formatThin(a.spare_mm, units)} spare`}
        </Label>
      )}
      <path d={`M${start} 8H${end}M${start} 3v10M${end} 3v10`} stroke={ink.hair} fill="none" />
      <Label x={(start + end) / 2} y={8} size={14}>
        {formatThin(way.width_mm ?? 0, units)}
      </Label>
    </svg>
  );
}
