/** The cut in the page's address, so that it can be shared, bookmarked and taken from station to station. */
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Cut, Direction, Finish, Material, Saw, Support } from '../../api/types';

const usual = {
  material: 'hard-maple',
  thickness_mm: 25,
  width_mm: 120,
  length_mm: 900,
  finish: 'hidden' as Finish,
};

/** The address's keys, short because people read them aloud. */
const keys = {
  saw_id: 'saw',
  material: 'of',
  direction: 'cut',
  motion: 'by',
  thickness_mm: 't',
  width_mm: 'w',
  length_mm: 'l',
  finish: 'for',
  exit_support: 'exit',
  other_support: 'end',
} as const satisfies Record<keyof Cut, string>;

/** The cut that the address says, filled up with the usual one; undefined until the shop's saws are known. */
export function useCut(saws: Saw[] | undefined, materials: Material[] | undefined) {
  const [params, setParams] = useSearchParams();
  const cut = useMemo<Cut | undefined>(() => {
    if (!saws || !materials) return undefined;
    const saw =
      saws.find((s) => s.id === params.get(keys.saw_id)) ?? saws.find((s) => s.kind === 'table') ?? saws[0];
    if (!saw) return undefined;
    const direction = params.get(keys.direction) as Direction | null;
    const size = (key: 'thickness_mm' | 'width_mm' | 'length_mm') => {
      const v = Number(params.get(keys[key]) ?? usual[key]);
      return Number.isFinite(v) ? v : usual[key];
    };
    return {
      saw_id: saw.id,
      material: params.get(keys.material) ?? usual.material,
      direction: direction && saw.directions.includes(direction) ? direction : saw.directions[0]!,
      thickness_mm: size('thickness_mm'),
      width_mm: size('width_mm'),
      length_mm: size('length_mm'),
      finish: (params.get(keys.finish) as Finish | null) ?? usual.finish,
      motion: (params.get(keys.motion) as Cut['motion'] | null) ?? undefined,
      exit_support: (params.get(keys.exit_support) as Support | null) ?? undefined,
      other_support: (params.get(keys.other_support) as Support | null) ?? undefined,
    };
  }, [params, saws, materials]);

  const change = (part: Partial<Cut>) => {
    const next = new URLSearchParams(params);
    // Another saw or direction brings its own usual motion and supports.
    const resets = 'saw_id' in part || 'direction' in part;
    if (resets) for (const k of ['motion', 'exit_support', 'other_support'] as const) next.delete(keys[k]);
    for (const [k, v] of Object.entries(part) as [keyof Cut, string | number][]) next.set(keys[k], String(v));
    setParams(next, { replace: true, preventScrollReset: true });
  };
  return [cut, change] as const;
}
