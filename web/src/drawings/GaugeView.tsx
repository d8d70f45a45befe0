/** A dial or a sliding caliper with a reading on it, to be read off. */
import Box from '@mui/material/Box';
import type { GaugeFace } from '../api/types';
import { useSize } from './useSize';
import { ink } from './ink';

export function GaugeView({ face }: { face: GaugeFace }) {
  return face.caliper ? <Caliper face={face} /> : <Dial face={face} />;
}

const round = Array.from({ length: 100 }, (_, i) => i);

function Dial({ face }: { face: GaugeFace }) {
  const lines = face.shows_mm / face.step_mm;
  return (
    <svg
      viewBox="-120 -120 240 240"
      width="100%"
      aria-hidden
      focusable="false"
      style={{ display: 'block', maxHeight: 360 }}
    >
      <circle r={114} fill={ink.paper} stroke={ink.ink} strokeWidth={4} />
      {round.map((i) => (
        <path
          key={i}
          d={`M0 -104V${i % 10 === 0 ? -86 : i % 5 === 0 ? -92 : -97}`}
          transform={`rotate(${i * 3.6})`}
          stroke={ink.ink}
          strokeWidth={i % 10 === 0 ? 2 : 1}
        />
      ))}
      {round
        .filter((i) => i % 10 === 0)
        .map((i) => {
          const a = (i * 3.6 * Math.PI) / 180;
          return (
            <text
              key={i}
              x={72 * Math.sin(a)}
              y={-72 * Math.cos(a)}
              fontSize={16}
              fontWeight={600}
              textAnchor="middle"
              dominantBaseline="central"
              fill={ink.ink}
            >
              {Math.min(i, 100 - i)}
            </text>
          );
        })}
      <text y={34} fontSize={15} textAnchor="middle" fill={ink.ink}>
        {face.inch ? '0.001 in' : '0.01 mm'}
      </text>
      <path
        d="M-2.500 14L-0.800 -98H0.800L2.500 14Z"
        transform={`rotate(${lines * 3.6})`}
        fill={ink.accent}
      />
      <circle r={7} fill={ink.ink} />
    </svg>
  );
}

const MOST = 20; // mm of the scale

function Caliper({ face }: { face: GaugeFace }) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const scale = (width - 24) / MOST;
  const x = (mm: number) => 12 + mm * scale;
  // Ten lines of the slide on nine of the rule; in inches 25 on 24 fortieths.
  const line = face.inch ? 0.635 : 1;
  const slide = face.inch ? { lines: 25, gap: 0.6096, named: 5 } : { lines: 10, gap: 0.9, named: 5 };
  const ruled = Array.from({ length: Math.floor(MOST / line) + 1 }, (_, i) => i);
  const name = (i: number) =>
    face.inch ? (i % 4 === 0 ? (i / 40).toFixed(1).replace(/^0/, '') : '') : i % 5 === 0 ? String(i) : '';
  return (
    <Box ref={ref} sx={{ width: '100%' }}>
      {width > 0 && (
        <svg width={width} height={190} aria-hidden focusable="false" style={{ display: 'block' }}>
          <rect x={0} y={10} width={width} height={82} fill={ink.paper} stroke={ink.ink} strokeWidth={1.5} />
          {ruled.map((i) => (
            <g key={i}>
              <path
                d={`M${x(i * line)} 92v${name(i) ? -38 : face.inch && i % 2 ? -20 : -26}`}
                stroke={ink.ink}
                strokeWidth={name(i) ? 1.8 : 1}
              />
              {name(i) && (
                <text
                  x={x(i * line)}
                  y={44}
                  fontSize={16}
                  fontWeight={600}
                  textAnchor="middle"
                  fill={ink.ink}
                >
                  {name(i)}
                </text>
              )}
            </g>
          ))}
          <rect
            x={Math.max(0, x(face.shows_mm) - 14)}
            y={92}
            width={slide.lines * slide.gap * scale + 28}
            height={78}
            fill={ink.steel}
            stroke={ink.ink}
            strokeWidth={1.5}
          />
          {Array.from({ length: slide.lines + 1 }, (_, i) => (
            <g key={i}>
              <path
                d={`M${x(face.shows_mm + i * slide.gap)} 92v${i % slide.named ? 22 : 34}`}
                stroke={ink.ink}
                strokeWidth={i === 0 ? 2 : 1.1}
              />
              {i % slide.named === 0 && (
                <text
                  x={x(face.shows_mm + i * slide.gap)}
                  y={144}
                  fontSize={15}
                  textAnchor="middle"
                  fill={ink.ink}
                >
                  {i}
                </text>
              )}
            </g>
          ))}
        </svg>
      )}
    </Box>
  );
}
