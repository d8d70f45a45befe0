/** The groove in the page's address: the cut, and what goes into it. */
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Cut, Fit, GrooveAsk, Material, Saw } from '../../api/types';
import { useCut } from '../choose/cut';

const DEPTH = 6;

/** Readings of the piece, in millimetres; none while it is not measured. */
export interface Said {
  piece: number[];
  fit: Fit;
  count: number;
  edge: number;
}

export function useAsk(saws: Saw[] | undefined, materials: Material[] | undefined) {
  const [params, setParams] = useSearchParams();
  const [cut, changeCut] = useCut(saws, materials);
  const said = useMemo<Said>(() => {
    const number = (key: string, usual: number) => {
      const v = Number(params.get(key) ?? usual);
      return Number.isFinite(v) ? v : usual;
    };
    return {
      piece: (params.get('p') ?? '')
        .split('~')
        .map(Number)
        .filter((v) => v > 0),
      fit: (params.get('fit') as Fit | null) ?? 'glue',
      count: number('n', 4),
      edge: number('edge', 50),
    };
  }, [params]);
  const grooved = useMemo<Cut | undefined>(
    () =>
      cut && {
        ...cut,
        form: cut.form === 'rabbet' ? 'rabbet' : 'groove',
        depth_mm: cut.depth_mm ?? DEPTH,
        bevel_deg: undefined,
        miter_deg: undefined,
      },
    [cut],
  );
  const ask = useMemo<GrooveAsk | undefined>(
    () =>
      grooved && said.piece.length > 0
        ? { cut: grooved, piece_mm: said.piece, fit: said.fit, count: said.count, edge_mm: said.edge }
        : undefined,
    [grooved, said],
  );
  const say = (part: Partial<Said>) => {
    const next = new URLSearchParams(params);
    const all = { ...said, ...part };
    const put = (key: string, v: string) => (v === '' ? next.delete(key) : next.set(key, v));
    put('p', all.piece.map((v) => String(Number(v.toFixed(3)))).join('~'));
    put('fit', all.fit);
    put('n', String(all.count));
    put('edge', String(all.edge));
    setParams(next, { replace: true, preventScrollReset: true });
  };
  return { cut: grooved, said, ask, say, changeCut };
}
