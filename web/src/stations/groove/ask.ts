/** The groove in the page's address: the cut, and what goes into it. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Cut, Fit, GrooveAsk, Material, Saw } from '../../api/types';
import { useAddress } from '../../ui/address';
import { useCut } from '../../cut/cut';

const DEPTH = 6;

/** Readings of the piece, in millimetres; none while it is not measured. */
export interface Said {
  piece: number[];
  fit: Fit;
  count: number;
  edge: number;
}

function read(params: URLSearchParams): Said {
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
}

function write(said: Said, params: URLSearchParams) {
  const put = (key: string, v: string) => (v === '' ? params.delete(key) : params.set(key, v));
  put('p', said.piece.map((v) => String(Number(v.toFixed(3)))).join('~'));
  put('fit', said.fit);
  put('n', String(said.count));
  put('edge', String(said.edge));
}

export function useAsk(saws: Saw[] | undefined, materials: Material[] | undefined) {
  const [params, change] = useAddress();
  const [cut, changeCut, answer] = useCut(saws, materials);
  // A gauge types faster than an address changes: what is said is held here, and written there.
  const [said, setSaid] = useState(() => read(params));
  const touched = useRef(false);
  useEffect(() => {
    if (touched.current) change((now) => write(said, now));
  }, [said, change]);
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
  const say = (part: (now: Said) => Partial<Said>) => {
    touched.current = true;
    setSaid((now) => ({ ...now, ...part(now) }));
  };
  return { cut: grooved, said, ask, say, changeCut, answer };
}
