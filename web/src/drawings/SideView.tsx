/**
 * The cut from the side at true scale: blade, table or shoe, stock, the arc in
 * the wood and the teeth in it, where and how steeply they leave, and what
 * stands proud. The blade can be taken hold of and moved up and down.
 *
 * Drawn from props alone; every figure beside it comes from the server.
 */
import { wordOf } from './codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useId } from 'react';
import type { Blade, Cut, Material, Saw, Setting, Units } from '../api/types';
import { fixed, formatLength, formatSetting, trim } from '../measure/format';
import { useSize } from './useSize';
import { tipsPath } from './blade';
import { VerticalDimension } from './Dimension';
import { ink } from './ink';
import { Label } from './Label';
import { sceneOf } from './scene';
import { GrainPattern, grainOf } from './Stock';
import { HeightHandle } from './HeightHandle';
import { BladeBody, Turning } from './BladeBody';

interface Props {
  saw: Saw;
  blade: Blade;
  cut: Cut;
  material: Material | undefined;
  setting: Setting;
  section: { width_mm: number; thickness_mm: number }; // that the blade really meets, turned and tilted
  fullMm: number; // as far as the height goes; 0 where it does not move
  showFace: 'up' | 'down';
  units: Units;
  onHeight?: (mm: number) => void; // left out, nothing moves and little is said: for a row of drawings
}

export function SideView(p: Props) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  return (
    <Box ref={ref} sx={{ width: '100%', height: '100%', minHeight: 0, overflow: 'hidden' }}>
      {width > 0 && height > 0 && <Drawing {...p} width={width} height={height} />}
    </Box>
  );
}

function Drawing({
  saw,
  blade,
  cut,
  material,
  setting,
  section,
  fullMm,
  showFace,
  units,
  onHeight,
  width,
  height,
}: Props & { width: number; height: number }) {
  const id = useId();
  const r = blade.diameter_mm / 2;
  const chop = cut.motion === 'chop';
  // All is drawn in the plane of the blade: tilted, it has more wood in its way.
  const plane = section.thickness_mm / cut.thickness_mm;
  const across = section.width_mm;
  const thick = section.thickness_mm;
  const h = setting.height_mm * plane;
  const s = sceneOf(cut.motion, saw.kind, r, thick, h, fullMm * plane);
  const scale = Math.min(height / (s.top - s.bottom), width / (chop ? Math.max(across + 120, 200) : 250));
  const middle = width * (saw.kind === 'table' ? 0.5 : 0.46);
  const floor = height - -s.bottom * scale - Math.max(0, (height - (s.top - s.bottom) * scale) / 2);
  const X = (mm: number) => middle + mm * scale;
  const Y = (mm: number) => floor - mm * scale;

  // Where the rim crosses the faces of the stock, on the side that still has wood.
  const crossing = (y: number) => s.side * Math.sqrt(Math.max(0, r * r - (y - s.centre) ** 2));
  const reachesIn = Math.abs(s.faceIn - s.centre) < r;
  const yIn = reachesIn ? s.faceIn : s.rim;
  const half = across / 2;
  const inX = chop ? -Math.min(half, Math.abs(crossing(s.faceIn))) : reachesIn ? crossing(s.faceIn) : 0;
  const outX = chop ? -inX : crossing(s.faceOut);
  const yAt = (x: number) => s.centre - Math.sign(s.centre - s.rim) * Math.sqrt(r * r - x * x);
  const start: [number, number] = [inX, chop ? yAt(inX) : yIn];
  const end: [number, number] = [outX, chop ? yAt(outX) : s.faceOut];
  const arc = (sweep: 0 | 1) => `A${r * scale} ${r * scale} 0 0 ${sweep} ${X(end[0])} ${Y(end[1])}`;
  // The blade turns counter-clockwise, on paper as well.
  const rimArc = `M${X(start[0])} ${Y(start[1])}${arc(0)}`;
  const angle = ([x, y]: readonly [number, number]) => Math.atan2(y - s.centre, x);
  const from = angle(start);
  const to = angle(end);

  // The work: whole wood up to the arc, and the wall of the kerf behind it.
  const left = chop ? X(-half) : cut.motion === 'push' ? X(outX + Math.min(across * 0.3, 60) - across) : 0;
  const right = chop ? X(half) : cut.motion === 'push' ? X(outX + Math.min(across * 0.3, 60)) : width;
  const whole = chop
    ? `M${left} ${Y(thick)}L${X(start[0])} ${Y(start[1])}${arc(0)}L${right} ${Y(thick)}V${Y(0)}H${left}Z`
    : s.side < 0
      ? `M${left} ${Y(thick)}H${X(start[0])}${start[1] < thick ? `V${Y(start[1])}` : ''}${arc(0)}H${left}Z`
      : `M${right} ${Y(0)}H${X(start[0])}${start[1] > 0 ? `V${Y(start[1])}` : ''}${arc(0)}H${right}Z`;
  const through = chop || setting.height_mm >= cut.thickness_mm;
  const uncut = through ? null : s.rim; // wood left over the rim
  const grain = grainOf(material, cut.direction);
  const tangent = to + Math.PI / 2;
  const movable = fullMm > 0 && onHeight !== undefined;
  const still = onHeight === undefined;
  const roomy = width > 520 && !still; // for what the sentence says as well

  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={t`Side view of ${blade.name} in ${formatLength(cut.thickness_mm, units)} ${material?.name ?? t`stock`}`}
      style={{ display: 'block', touchAction: 'pan-x', userSelect: 'none' }}
    >
      <defs>
        <GrainPattern id={`${id}g`} grain={grain} thickness={thick * scale} />
        <pattern
          id={`${id}iron`}
          width={7}
          height={7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V7" stroke={ink.hair} strokeWidth={1} />
        </pattern>
      </defs>

      {/* the wall of the kerf, and then the wood that is still whole */}
      <g transform={`translate(0 ${Y(thick)})`}>
        <rect
          x={left}
          y={0}
          width={Math.max(0, right - left)}
          height={thick * scale}
          fill={ink.wood}
          fillOpacity={0.45}
          stroke={ink.hair}
          strokeDasharray="5 4"
        />
      </g>
      <g transform={`translate(0 ${Y(thick)})`}>
        <path d={whole} transform={`translate(0 ${-Y(thick)})`} fill={ink.wood} />
        <g clipPath={`url(#${id}w)`}>
          <rect
            x={left}
            y={0}
            width={Math.max(0, right - left)}
            height={thick * scale}
            fill={`url(#${id}g)`}
          />
        </g>
        <clipPath id={`${id}w`}>
          <path d={whole} transform={`translate(0 ${-Y(thick)})`} />
        </clipPath>
        <path
          d={whole}
          transform={`translate(0 ${-Y(thick)})`}
          fill="none"
          stroke={ink.ink}
          strokeWidth={1.4}
        />
      </g>
      {uncut !== null && (
        <rect
          x={left}
          y={saw.kind === 'table' ? Y(thick) : Y(uncut)}
          width={Math.max(0, right - left)}
          height={Math.abs((saw.kind === 'table' ? thick - uncut : uncut) * scale)}
          fill={ink.wood}
          stroke={ink.ink}
        />
      )}

      <BladeBody blade={blade} x={X(0)} y={Y(s.centre)} scale={scale} />

      {/* table, or shoe */}
      {saw.kind === 'circular' ? (
        <g>
          <rect
            x={X(-r * 0.95)}
            y={Y(thick) - 6}
            width={r * 1.9 * scale}
            height={6}
            fill={ink.sheet}
            stroke={ink.ink}
            strokeWidth={1.4}
          />
          <path d={`M0 ${Y(0)}H${width}`} stroke={ink.hair} strokeDasharray="2 5" />
          {cut.bed === 'sheet' && (
            <rect
              x={0}
              y={Y(0)}
              width={width}
              height={12 * scale}
              fill={ink.grain}
              fillOpacity={0.45}
              stroke={ink.hair}
            />
          )}
          {cut.bed === 'runners' && (
            <g fill={ink.grain} fillOpacity={0.45} stroke={ink.hair}>
              <rect x={0} y={Y(0)} width={width} height={16 * scale} />
            </g>
          )}
        </g>
      ) : (
        <g>
          <rect
            x={0}
            y={Y(0)}
            width={width}
            height={Math.max(0, height - Y(0))}
            fill={ink.sheet}
            fillOpacity={0.82}
          />
          <rect x={0} y={Y(0)} width={width} height={9} fill={`url(#${id}iron)`} />
          <path d={`M0 ${Y(0)}H${width}`} stroke={ink.ink} strokeWidth={2} />
          {saw.kind === 'miter' && (
            <path
              d={`M${right + 1} ${Y(0)}V${Y(thick) - 26}h9V${Y(0)}Z`}
              fill={ink.sheet}
              stroke={ink.ink}
              strokeWidth={1.4}
            />
          )}
        </g>
      )}
      {saw.kind !== 'circular' && (
        <g strokeDasharray="4 4" fill="none" stroke={ink.hair} clipPath={`url(#${id}under)`}>
          <circle cx={X(0)} cy={Y(s.centre)} r={r * scale} />
        </g>
      )}
      <clipPath id={`${id}under`}>
        <rect x={0} y={Y(0)} width={width} height={Math.max(0, height - Y(0))} />
      </clipPath>

      {/* the arc, and the teeth that are in the wood */}
      <path
        d={rimArc}
        fill="none"
        stroke={ink.ink}
        strokeWidth={5}
        strokeLinecap="round"
        strokeOpacity={0.16}
      />
      <path d={rimArc} fill="none" stroke={ink.ink} strokeWidth={2.4} strokeLinecap="round" />
      {blade.teeth > 0 && (
        <path
          transform={`translate(${X(0)} ${Y(s.centre)}) scale(${scale})`}
          d={tipsPath(blade, Math.PI / 2, [from, to])}
          fill={ink.ink}
          stroke={ink.ink}
          strokeWidth={0.8}
        />
      )}

      {/* where they leave */}
      {!chop && (
        <g transform={`translate(${X(end[0])} ${Y(end[1])}) rotate(${(-tangent * 180) / Math.PI})`}>
          <path
            d="M2 0H40M32 -5L41 0L32 5"
            fill="none"
            stroke={ink.ink}
            strokeWidth={2}
            strokeLinejoin="round"
          />
        </g>
      )}
      {!chop && !still && (
        <Label
          x={s.side < 0 ? X(end[0]) + 8 : Math.min(X(end[0]) + 30, width - 170)}
          y={saw.kind === 'table' ? Y(0) + 24 : Y(thick) - (roomy ? 34 : 52)}
          anchor="start"
        >
          {t`${fixed(setting.exit.angle_deg, 0)}° from the ${wordOf(setting.exit.name)}`}
        </Label>
      )}
      {chop && (
        <Label x={X(0)} y={Y(thick) - 40} anchor="middle">
          {t`${fixed(setting.exit.angle_deg, 0)}° from the ${wordOf(setting.exit.name)}`}
        </Label>
      )}
      {roomy && (
        <Label
          x={Math.max(170, Math.min(width - 170, X((start[0] + end[0]) / 2) + s.side * 14))}
          y={Y((start[1] + end[1]) / 2)}
          anchor={s.side < 0 ? 'end' : 'start'}
        >
          {t`${fixed(setting.teeth_in_cut, 1)} teeth in the wood`}
        </Label>
      )}

      <Turning x={X(0)} y={Y(s.centre)} r={r * scale} up={saw.kind === 'table'} />
      {roomy && saw.kind === 'table' && (
        <g stroke={ink.hair} strokeWidth={1.5} fill="none">
          <path d={`M72 ${Y(thick) - 16}h44m-9 -5l9 5l-9 5`} />
          <Label x={122} y={Y(thick) - 16} anchor="start">{t`feed`}</Label>
        </g>
      )}
      {saw.kind !== 'table' && !chop && (
        <g stroke={ink.hair} strokeWidth={1.5} fill="none">
          <path d={`M${X(0) - 22} ${Math.max(16, Y(s.centre))}h44m-9 -5l9 5l-9 5`} />
        </g>
      )}
      {roomy && (
        <Label
          x={s.side < 0 ? width - 14 : 14}
          y={showFace === 'up' ? Y(thick) - 14 : Y(0) + 16}
          anchor={s.side < 0 ? 'end' : 'start'}
        >
          {showFace === 'up' ? t`show face up ▴` : t`show face down ▾`}
        </Label>
      )}

      {!still && (
        <VerticalDimension
          x={chop ? left - 34 : s.side < 0 ? 34 : width - 40}
          from={Y(0)}
          to={Y(thick)}
          text={(roomy ? formatLength : formatSetting)(cut.thickness_mm, units)}
          within={width}
        />
      )}
      {plane > 1.0001 && !still && (
        <Label x={8} y={14} anchor="start">
          {roomy
            ? t`seen square to the blade, tilted ${trim(cut.bevel_deg ?? 0, 1)}°: ${formatSetting(thick, units)} of wood to cut`
            : t`tilted ${trim(cut.bevel_deg ?? 0, 1)}°: ${formatSetting(thick, units)} to cut`}
        </Label>
      )}
      {!through && !still && (
        <Label x={X(0)} y={saw.kind === 'table' ? Y(thick) + 16 : Y(0) - 14} anchor="middle">
          {t`${formatSetting(cut.thickness_mm - setting.height_mm, units)} left uncut`}
        </Label>
      )}
      {movable && through && (
        <Label x={X(0) - 24} y={Y(s.rim) + (saw.kind === 'table' ? (roomy ? -6 : -22) : 14)} anchor="end">
          {saw.kind === 'table'
            ? t`${formatSetting(setting.height_mm - cut.thickness_mm, units)} above`
            : t`${formatSetting(setting.height_mm - cut.thickness_mm, units)} through`}
        </Label>
      )}
      {movable && onHeight && (
        <HeightHandle
          x={X(0)}
          y={Y(s.rim)}
          zero={saw.kind === 'table' ? Y(0) : Y(thick)}
          dimX={X(s.side < 0 ? r * 0.62 : -r * 0.62)}
          up={saw.kind === 'table'}
          value={setting.height_mm}
          max={fullMm}
          scale={scale * plane}
          units={units}
          onHeight={onHeight}
          label={saw.kind === 'table' ? t`Blade height` : t`Cutting depth`}
          within={width}
        />
      )}
      {!still && <ScaleBar x={width - 50 * scale - 64} y={height - 10} scale={scale} units={units} />}
    </svg>
  );
}

function ScaleBar({ x, y, scale, units }: { x: number; y: number; scale: number; units: Units }) {
  const [mm, text] = units === 'mm' ? [50, t`50 mm`] : [50.8, '2"'];
  return (
    <g stroke={ink.hair} strokeWidth={1.2} fill="none">
      <path d={`M${x} ${y - 4}v4h${mm * scale}v-4`} />
      <text x={x + mm * scale + 8} y={y} fontSize={12.5} fill={ink.mark} stroke="none">
        {text}
      </text>
    </g>
  );
}
