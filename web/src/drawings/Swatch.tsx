/** A sample of a material, a thumbnail wide: what one would see of it from the edge. */
import type { Material } from '../api/types';
import { ink } from './ink';

const W = 36;
const H = 24;

/** Lines of growth, nearer together the denser the wood. */
function grain(density: number) {
  const n = Math.round(3 + Math.min(6, density / 130));
  return Array.from({ length: n }, (_, i) => {
    const y = ((i + 0.6) * H) / n;
    const bow = 1.6 - (2.4 * i) / n;
    return `M0 ${y.toFixed(1)}Q${W / 2} ${(y - bow).toFixed(1)} ${W} ${(y + bow / 2).toFixed(1)}`;
  }).join('');
}

/** Chips of a board, always the same ones. */
function chips() {
  let d = '';
  for (let i = 0; i < 46; i++) {
    const x = (i * 17.3) % W;
    const y = (i * 7.9 + (i % 5)) % H;
    d += `M${x.toFixed(1)} ${y.toFixed(1)}l${1.2 + (i % 3)} ${(i % 4) - 1.5}`;
  }
  return d;
}

const plies = Array.from({ length: 7 }, (_, i) => `M0 ${((i + 1) * H) / 8}H${W}`).join('');
const CHIPS = chips();

export function Swatch({ material: m }: { material: Pick<Material, 'kind' | 'density_kg_m3'> }) {
  const wood = ['softwood', 'hardwood', 'nailed', 'plywood', 'composite', 'laminate'].includes(m.kind);
  return (
    <svg
      width={W}
      height={H}
      viewBox={`0 0 ${W} ${H}`}
      aria-hidden
      focusable="false"
      style={{ flex: 'none' }}
    >
      <rect width={W} height={H} fill={wood ? ink.wood : ink.steel} />
      {(m.kind === 'softwood' || m.kind === 'hardwood' || m.kind === 'nailed') && (
        <path
          d={grain(m.density_kg_m3)}
          fill="none"
          stroke={ink.grain}
          strokeWidth={m.kind === 'softwood' ? 1.6 : 1}
        />
      )}
      {m.kind === 'nailed' && <path d="M11 0V15M25 0V15" stroke={ink.ink} strokeWidth={2} />}
      {m.kind === 'plywood' && <path d={plies} stroke={ink.grain} strokeWidth={1.4} />}
      {(m.kind === 'composite' || m.kind === 'laminate') && (
        <path d={CHIPS} stroke={ink.grain} strokeWidth={0.9} />
      )}
      {m.kind === 'laminate' && <path d={`M0 1.5H${W}M0 ${H - 1.5}H${W}`} stroke={ink.ink} strokeWidth={2} />}
      {(m.kind === 'soft-metal' || m.kind === 'steel') && (
        <path
          d="M-4 24L20 0M6 24L30 0M16 24L40 0"
          stroke={ink.hair}
          strokeWidth={m.kind === 'steel' ? 2.4 : 1}
        />
      )}
      {(m.kind === 'cement-board' || m.kind === 'mineral') && (
        <path d={CHIPS} stroke={ink.hair} strokeWidth={1.2} />
      )}
      <rect x={0.5} y={0.5} width={W - 1} height={H - 1} fill="none" stroke={ink.hair} />
    </svg>
  );
}
