/**
 * Finding blades by what people call them: every word must be somewhere in the
 * blade, and every number must be a whole number of it, so that peg 2 is not
 * found in 24 teeth.
 */
import type { Blade } from '../../api/types';
import { grindShort, grindWords, makeWords } from '../../drawings/words';
import { keptForWords, stateWords } from '../../drawings/recordWords';

export interface Wanted {
  text: string;
  use: string;
  state: string;
  retired: boolean;
}

const number = /^[\d.]+$/;
/** What stands between words: all but letters, digits and the point inside a number. */
const between = /[^\p{L}\p{N}.]+|\.(?!\d)/gu;

const texts = new WeakMap<Blade, string>();

/** All that can be said of a blade, in small letters with a space around each word; made once for each. */
function textOf(b: Blade): string {
  let t = texts.get(b);
  if (t === undefined) {
    const said = [
      b.name,
      b.hangs,
      b.note,
      keptForWords[b.kept_for],
      makeWords[b.make],
      b.grind && `${grindWords[b.grind]} ${grindShort[b.grind]} ${b.teeth}t`,
      `${b.teeth} ${b.diameter_mm} ${b.kerf_mm}`,
      stateWords[b.condition.state],
    ]
      .join(' ')
      .toLowerCase();
    t = ` ${said.replace(between, ' ')} `;
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
    .split(between)
    .every((word) => t.includes(number.test(word) ? ` ${word} ` : word));
}
