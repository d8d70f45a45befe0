/** Finding blades by what people call them: every word must be somewhere in the blade. */
import type { Blade } from '../../api/types';
import { grindShort, grindWords, makeWords, useWords } from '../../drawings/words';

export interface Wanted {
  text: string;
  use: string;
  state: string;
  retired: boolean;
}

const texts = new WeakMap<Blade, string>();

/** All that can be said of a blade, in small letters; made once for each. */
function textOf(b: Blade): string {
  let t = texts.get(b);
  if (t === undefined) {
    t = [
      b.name,
      b.hangs,
      b.note,
      useWords[b.kept_for],
      makeWords[b.make],
      b.grind && `${grindWords[b.grind]} ${grindShort[b.grind]} ${b.teeth}t`,
      `${b.teeth} ${b.diameter_mm} ${b.kerf_mm}`,
      b.condition.state,
    ]
      .join(' ')
      .toLowerCase();
    texts.set(b, t);
  }
  return t;
}

export function matches(b: Blade, w: Wanted): boolean {
  if (w.use && b.kept_for !== w.use) return false;
  if (w.state && b.condition.state !== w.state) return false;
  const t = textOf(b);
  return w.text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => t.includes(word));
}
