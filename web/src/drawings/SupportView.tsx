/** A board from above on its supports, with its cut line; what bears is dark, what does not is hollow. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useRef } from 'react';
import type { SupportPlan, Units } from '../api/types';
import { formatSetting, trim } from '../measure/format';
import { useSize } from './useSize';
import { ink } from './ink';
import { inside, Label, widthOf } from './Label';

type Half = SupportPlan['halves'][number];

interface Props {
  /** Before it is cut nobody says what its halves do. */
  plan: Omit<SupportPlan, 'halves'> & {
    halves: (Omit<Half, 'verdict'> & { verdict?: Half['verdict'] | undefined })[];
  };
  spanMm: number;
  breadthMm: number;
  lineMm: number;
  units: Units;
  handles: number[]; // in the order in which they were placed
  onMove?: (i: number, mm: number) => void; // left out, nothing moves
}

const words = {
  carried: t`carried`,
  drops: t`sags at the cut line`,
  tips: t`tips away`,
  falls: t`falls`,
} as const;

export function SupportView(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  return (
    <Box ref={ref} sx={{ width: '100%', my: 1 }}>
      {width > 0 && <Drawing {...p} width={width} />}
    </Box>
  );
}

function Drawing({
  plan,
  spanMm,
  breadthMm,
  lineMm,
  units,
  handles,
  onMove,
  width,
}: Props & { width: number }) {
  const pad = 20;
  const scale = (width - 2 * pad) / spanMm;
  const tall = Math.min(120, Math.max(46, breadthMm * scale));
  const top = 30;
  const X = (mm: number) => pad + mm * scale;
  const loads = new Map(plan.halves.flatMap((h) => h.loads).map((l) => [l.at_mm, l.kg]));
  const ink2 = (x: number) => loads.has(x);
  const texts = plan.at_mm.map((x) =>
    loads.get(x) === undefined
      ? formatSetting(x, units)
      : `${formatSetting(x, units)}, ${trim(Math.max(0, loads.get(x)!), 1)} kg`,
  );
  const rows = rowsFor(plan.at_mm.map(X), texts, width);
  const height = top + tall + 26 + 15 * (Math.max(...rows, 1) + 1);
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={
        plan.halves.some((h) => h.verdict)
          ? t`Board on ${plan.at_mm.length} supports: ${plan.halves.map((h) => h.verdict && words[h.verdict]).join(', ')}`
          : t`Board on ${plan.at_mm.length} supports`
      }
      style={{ display: 'block' }}
    >
      {plan.at_mm.map((x, i) => (
        <rect
          key={i}
          x={X(x) - 5}
          y={top - 10}
          width={10}
          height={tall + 20}
          fill={ink2(x) ? ink.hair : ink.sheet}
          stroke={ink.ink}
          strokeWidth={1.2}
        />
      ))}
      {plan.halves.map((h) => (
        <g key={h.from_mm}>
          <rect
            x={X(h.from_mm)}
            y={top}
            width={(h.to_mm - h.from_mm) * scale}
            height={tall}
            fill={ink.wood}
            fillOpacity={0.75}
            stroke={ink.ink}
            strokeWidth={1.4}
          />
          {h.verdict && (
            <>
              <circle
                cx={X((h.from_mm + h.to_mm) / 2)}
                cy={top + tall / 2}
                r={4}
                fill="none"
                stroke={ink.ink}
              />
              <path
                d={`M${X((h.from_mm + h.to_mm) / 2) - 7} ${top + tall / 2}h14m-7 -7v14`}
                stroke={ink.ink}
                strokeWidth={1}
              />
              <Label size={13} within={width} x={X((h.from_mm + h.to_mm) / 2)} y={top + 14}>
                {t`${trim(h.kg, 1)} kg, ${words[h.verdict]}`}
              </Label>
            </>
          )}
        </g>
      ))}
      <path
        d={`M${X(lineMm)} ${top - 18}V${top + tall + 18}`}
        stroke={ink.ink}
        strokeWidth={2}
        strokeDasharray="9 4 2 4"
      />
      <Label size={13} x={X(lineMm)} y={top - 22}>{t`cut line`}</Label>
      {plan.at_mm.map((x, i) => (
        <Label size={SMALL} within={width} key={i} x={X(x)} y={top + tall + 28 + rows[i]! * 15}>
          {texts[i]!}
        </Label>
      ))}
      {onMove &&
        handles.map((x, i) => (
          <Handle
            key={i}
            label={t`Support ${i + 1}`}
            mm={x}
            x={X(x)}
            y={top + tall / 2}
            most={spanMm}
            scale={scale}
            text={formatSetting(x, units)}
            onMove={(mm) => onMove(i, mm)}
          />
        ))}
    </svg>
  );
}

const SMALL = 13;

/** The first row under the board in which each text meets none of those before it. */
function rowsFor(at: number[], texts: string[], width: number): number[] {
  const ends: number[] = [];
  return texts.map((text, i) => {
    const half = widthOf(text, SMALL) / 2 + 4;
    const middle = inside(at[i]!, text, SMALL, width);
    let row = 0;
    while ((ends[row] ?? -Infinity) > middle - half) row++;
    ends[row] = middle + half;
    return row;
  });
}

interface HandleProps {
  label: string;
  mm: number;
  x: number;
  y: number;
  most: number;
  scale: number;
  text: string;
  onMove: (mm: number) => void;
}

function Handle({ label, mm, x, y, most, scale, text, onMove }: HandleProps) {
  const grab = useRef<{ x: number; mm: number } | null>(null);
  const to = (v: number) => onMove(Math.max(1, Math.min(most - 1, Math.round(v))));
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={1}
      aria-valuemax={most - 1}
      aria-valuenow={mm}
      aria-valuetext={text}
      style={{ cursor: 'ew-resize', touchAction: 'none' }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        grab.current = { x: e.clientX, mm };
      }}
      onPointerMove={(e) => grab.current && to(grab.current.mm + (e.clientX - grab.current.x) / scale)}
      onPointerUp={() => (grab.current = null)}
      onPointerCancel={() => (grab.current = null)}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -10, ArrowRight: 10, PageDown: -100, PageUp: 100 }[e.key];
        if (by === undefined) return;
        e.preventDefault();
        to(mm + by);
      }}
    >
      <rect x={x - 22} y={y - 22} width={44} height={44} fill="transparent" />
      <circle cx={x} cy={y} r={12} fill={ink.accent} stroke={ink.sheet} strokeWidth={2.5} />
      <path
        d={`M${x - 3} ${y - 4}l-4 4l4 4M${x + 3} ${y - 4}l4 4l-4 4`}
        fill="none"
        stroke={ink.sheet}
        strokeWidth={2}
      />
    </g>
  );
}
