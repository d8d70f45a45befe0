/**
 * A piece of a blade's rim, much larger than life, for looking a blade over
 * after a lost tip or a hit: where to look, and what it looks like if it is so.
 */
import { t } from '@lingui/core/macro';
import type { Survey } from '../api/types';
import { ink } from './ink';

export type Look = 'tips' | 'seat' | 'braze' | 'rest' | 'crack' | 'plate' | 'beside' | 'clean';

interface Props {
  look: Look;
  survey: Survey;
}

const faces = [80, 190, 300]; // where each tooth's face stands, in the drawing's own units
const LOST = 1; // the middle one

/** One tooth's outline, left to right: back, shoulder, seat, face, gullet. */
function outline(f: number, next: number) {
  return `L${f - 62} 118L${f - 16} 58L${f - 16} 92L${f} 92L${f - 4} 128Q${f} 152 ${(f + next) / 2 - 30} 150`;
}

export function SurveyView({ look, survey: s }: Props) {
  if (look === 'braze') return <Front squeezed={s.braze === 'squeezed'} />;
  const shift = look === 'beside' && s.beside === 'shifted' ? 9 : 0;
  const at = faces.map((f, i) => f + (i === 2 ? shift : 0));
  const plate = `M0 240L0 150${at.map((f, i) => outline(f, at[i + 1] ?? 410)).join('')}L400 150L400 240Z`;
  const gone = (s.missing ?? 0) > 0 || look === 'seat';
  const crack = look === 'crack' && (s.crack === 'gullet' || s.crack === 'slot');
  return (
    <svg viewBox="0 0 400 250" width="100%" height="100%" role="img" aria-label={says[look]}>
      <path d={plate} fill={ink.steel} stroke={ink.ink} strokeWidth={2} strokeLinejoin="round" />
      {/* a body slot, with its hole */}
      <path d="M262 150V205" stroke={ink.sheet} strokeWidth={7} />
      <circle cx={262} cy={208} r={8} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.5} />
      {look === 'plate' && s.blue && (
        <path d="M20 170Q150 190 380 168V236H20Z" fill={ink.ink} fillOpacity={0.22} />
      )}
      {at.map((f, i) => {
        const lost = i === LOST && gone;
        const chipped = i === LOST && !gone && (s.chipped ?? 0) > 0;
        if (lost)
          return (
            <path
              key={i}
              d={`M${f - 17} 54L${f + 3} 52L${f} 92H${f - 16}Z`}
              fill="none"
              stroke={ink.hair}
              strokeDasharray="4 4"
              strokeWidth={1.5}
            />
          );
        return (
          <path
            key={i}
            d={
              chipped
                ? `M${f - 17} 54L${f - 6} 53L${f - 3} 62L${f + 2} 66L${f} 92H${f - 16}Z`
                : `M${f - 17} 54L${f + 3} 52L${f} 92H${f - 16}Z`
            }
            fill={ink.ink}
          />
        );
      })}
      {look === 'rest' && s.rest === 'worn' && (
        <g stroke={ink.sheet} strokeWidth={4} strokeLinecap="round">
          <path d={`M${at[0]! - 1} 54l4 -1M${at[2]! - 1} 54l4 -1`} />
        </g>
      )}
      {(look === 'rest' || look === 'clean') && s.pitch && s.pitch !== 'none' && (
        <g fill={ink.scorch} fillOpacity={s.pitch === 'caked' ? 0.75 : 0.35}>
          {at.map((f) => (
            <path key={f} d={`M${f - 60} 120L${f - 20} 68L${f - 20} 110Q${f - 40} 130 ${f - 60} 120Z`} />
          ))}
        </g>
      )}
      {look === 'seat' && s.seat === 'saw-marks' && (
        <g stroke={ink.sheet} strokeWidth={2}>
          {[62, 69, 76, 83].map((y) => (
            <path key={y} d={`M${at[LOST]! - 22} ${y}l9 4`} />
          ))}
          {[3, 8, 13].map((x) => (
            <path key={x} d={`M${at[LOST]! - x} 91v7`} />
          ))}
        </g>
      )}
      {crack && (
        <path
          d={s.crack === 'gullet' ? 'M136 150l6 14l-7 10l8 16l-5 12' : 'M262 216l-6 8l7 7l-5 9'}
          fill="none"
          stroke={ink.ink}
          strokeWidth={2.5}
        />
      )}
      {look === 'plate' && s.bent && (
        <path d="M10 226Q200 196 390 228" fill="none" stroke={ink.ink} strokeWidth={3} />
      )}
      <Pointer look={look} at={at} />
    </svg>
  );
}

/** A hairline to the place that is looked at. */
function Pointer({ look, at }: { look: Look; at: number[] }) {
  const to: Partial<Record<Look, [number, number]>> = {
    tips: [at[LOST]!, 56],
    seat: [at[LOST]! - 10, 80],
    rest: [at[0]!, 56],
    crack: [138, 152],
    plate: [200, 205],
    beside: [at[2]!, 56],
  };
  const p = to[look];
  if (!p) return null;
  return (
    <g stroke={ink.accent} fill="none" strokeWidth={2}>
      <circle cx={p[0]} cy={p[1]} r={17} />
      <path d={`M${p[0] + 12} ${p[1] - 12}L${p[0] + 34} 14`} />
    </g>
  );
}

/** A tip from the front, on its plate: where braze shows. */
function Front({ squeezed }: { squeezed: boolean }) {
  return (
    <svg viewBox="0 0 400 250" width="100%" height="100%" role="img" aria-label={says.braze}>
      <rect x={165} y={130} width={70} height={115} fill={ink.steel} stroke={ink.ink} strokeWidth={2} />
      <path d="M145 25H255L248 132H152Z" fill={ink.ink} />
      {squeezed ? (
        <path
          d="M152 128Q128 134 140 152Q150 168 165 150V132ZM248 128Q272 134 260 152Q250 168 235 150V132Z"
          fill={ink.hair}
          stroke={ink.ink}
          strokeWidth={1.5}
        />
      ) : (
        <path d="M156 130H244V137H156Z" fill={ink.hair} stroke={ink.ink} strokeWidth={1} />
      )}
      <path d="M282 134H330" stroke={ink.accent} strokeWidth={2} />
      <circle cx={262} cy={134} r={20} fill="none" stroke={ink.accent} strokeWidth={2} />
    </svg>
  );
}

const says: Record<Look, string> = {
  clean: t`Rim with resin behind the teeth`,
  tips: t`Tips of three teeth`,
  seat: t`Seat of a lost tip`,
  braze: t`Tip from the front with the braze at its sides`,
  rest: t`The other teeth, with resin behind them`,
  crack: t`Gullets and a body slot, where cracks start`,
  plate: t`Plate below the teeth`,
  beside: t`Teeth next to the spot`,
};
