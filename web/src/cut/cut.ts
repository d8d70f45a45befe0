/** The cut in the page's address, so that it can be shared, bookmarked and taken from station to station. */
import { useMemo, useState } from 'react';
import type {
  Bed,
  Cut,
  Direction,
  Finish,
  Form,
  Material,
  Moisture,
  Pin,
  Saw,
  Side,
  Support,
} from '../api/types';
import { useAddress } from '../ui/address';

const usual = {
  material: 'hard-maple',
  thickness_mm: 25,
  width_mm: 120,
  length_mm: 900,
  finish: 'hidden' as Finish,
};

const usualDepth = 9;

/** What somebody answers to a question of safety. It holds for one cut on one page: no address carries it on. */
export type Answers = Pick<Cut, 'brake_off' | 'stood_by'>;

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
  form: 'form',
  depth_mm: 'd',
  bevel_deg: 'bevel',
  miter_deg: 'miter',
  bed: 'over',
  piece_mm: 'piece',
  board_mm: 'board',
  carriage: 'carriage',
  pieces: 'n',
  moisture: 'stock',
  moves: 'moves',
  fence_side: 'fence',
} as const satisfies Record<Exclude<keyof Cut, keyof Answers>, string>;

/** What a part of a cut can be; what is not said is left out of the address. */
type Word = string | number | boolean | undefined;
const unsaid = (v: Word) => v === undefined || v === 0 || v === '' || v === false;

/**
 * The cut that the address says, filled up with the usual one; undefined until the shop's saws are known. With it the
 * answers to questions about it, until it changes or `answer` is called with nothing.
 */
export function useCut(saws: Saw[] | undefined, materials: Material[] | undefined) {
  const [params, changeAddress] = useAddress();
  const said = useMemo<Cut | undefined>(() => {
    if (!saws || !materials) return undefined;
    const saw =
      saws.find((s) => s.id === params.get(keys.saw_id)) ?? saws.find((s) => s.kind === 'table') ?? saws[0];
    if (!saw) return undefined;
    const direction = params.get(keys.direction) as Direction | null;
    const optional = (key: 'depth_mm' | 'bevel_deg' | 'miter_deg' | 'piece_mm' | 'board_mm' | 'pieces') => {
      const v = Number(params.get(keys[key]) ?? 0);
      return Number.isFinite(v) && v > 0 ? v : undefined;
    };
    const form = (params.get(keys.form) as Form | null) ?? undefined;
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
      form,
      depth_mm: form && form !== 'through' ? (optional('depth_mm') ?? usualDepth) : undefined,
      bevel_deg: optional('bevel_deg'),
      miter_deg: optional('miter_deg'),
      bed: saw.kind === 'circular' ? ((params.get(keys.bed) as Bed | null) ?? undefined) : undefined,
      piece_mm: optional('piece_mm'),
      board_mm: direction === 'crosscut' ? undefined : optional('board_mm'),
      carriage: (!!saw.carriage_mm && params.has(keys.carriage)) || undefined,
      pieces: optional('pieces'),
      moisture: (params.get(keys.moisture) as Moisture | null) ?? undefined,
      moves: params.has(keys.moves) || undefined,
      fence_side:
        saw.kind === 'table' ? ((params.get(keys.fence_side) as Side | null) ?? undefined) : undefined,
    };
  }, [params, saws, materials]);

  const change = (part: Partial<Cut>) =>
    changeAddress((now) => {
      // Another saw or direction brings its own usual motion and supports.
      const resets = 'saw_id' in part || 'direction' in part;
      if (resets) {
        for (const k of ['motion', 'exit_support', 'other_support', 'miter_deg'] as const)
          now.delete(keys[k]);
        // A miter saw only cuts through, and only a hand-held one has a bed.
        if ('saw_id' in part)
          for (const k of ['form', 'depth_mm', 'bed', 'fence_side', 'carriage'] as const) now.delete(keys[k]);
      }
      for (const [k, v] of inAddress(part)) {
        if (unsaid(v)) now.delete(k);
        else now.set(k, String(v));
      }
    });

  const about = JSON.stringify(said);
  const [answered, setAnswered] = useState<[about: string, Answers]>();
  // Another cut: what was answered about the last is gone, even if somebody comes back to it.
  if (answered && answered[0] !== about) setAnswered(undefined);
  const answers = answered && answered[0] === about ? answered[1] : undefined;
  const answer = (now?: Answers) => setAnswered(now && about ? [about, { ...answers, ...now }] : undefined);
  const cut = useMemo(() => said && { ...said, ...answers }, [said, answers]);
  return [cut, change, answer] as const;
}

/** The parts of a cut that an address carries, under its keys. */
const inAddress = (part: Partial<Cut>) =>
  (Object.entries(part) as [keyof Cut, Word][]).flatMap(([k, v]) =>
    k in keys ? [[keys[k as keyof typeof keys], v] as const] : [],
  );

/** A cut as an address says it, for the stations that take it on. */
export function cutParams(cut: Partial<Cut>, more: Record<string, string | number | undefined> = {}) {
  const to = new URLSearchParams();
  const put = (k: string, v: Word) => {
    if (!unsaid(v)) to.set(k, String(v));
  };
  for (const [k, v] of inAddress(cut)) put(k, v);
  for (const [k, v] of Object.entries(more)) put(k, v);
  return to;
}

/** Two or three settings side by side, in the page's address like the cut itself. */
export function usePins() {
  const [params, changeAddress] = useAddress();
  const pins = useMemo(() => params.getAll('pin').map(readPin), [params]);
  const set = (choose: (pinned: string[]) => string[]) =>
    changeAddress((now) => {
      const chosen = choose(now.getAll('pin'));
      now.delete('pin');
      for (const pin of chosen) now.append('pin', pin);
    });
  return {
    pins,
    add: (p: Pin) => {
      const pin = writePin(p);
      set((pinned) => [...pinned.filter((q) => q !== pin), pin].slice(-MOST_PINS));
    },
    drop: (p: Pin) => set((pinned) => pinned.filter((q) => writePin(readPin(q)) !== writePin(p))),
  };
}

export const MOST_PINS = 3;

const writePin = (p: Pin) =>
  [p.blade_id, p.height_mm ?? '', p.exit_support ?? '', p.other_support ?? ''].join('~');

function readPin(text: string): Pin {
  const [blade_id = '', height, exit, other] = text.split('~');
  return {
    blade_id,
    height_mm: height ? Number(height) : undefined,
    exit_support: (exit || undefined) as Support | undefined,
    other_support: (other || undefined) as Support | undefined,
  };
}
