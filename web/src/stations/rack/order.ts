/** How the wall hangs: in one row after another, or under headings. */
import { t } from '@lingui/core/macro';
import type { Blade, Saw, Units } from '../../api/types';
import { upper } from '../../drawings/words';
import { keptForWords } from '../../drawings/recordWords';
import { formatLength } from '../../measure/format';

export type Order = 'due' | 'size' | 'use' | 'name';

export const orders: { value: Order; name: string }[] = [
  { value: 'due', name: t`Due first` },
  { value: 'size', name: t`By size` },
  { value: 'use', name: t`By use` },
  { value: 'name', name: t`By name` },
];

export interface Shelf {
  heading: string; // empty where the wall hangs in one
  blades: Blade[];
}

/** The blades in an order; urgency is the server's, most pressing first. */
export function hang(blades: Blade[], order: Order, urgent: string[], saws: Saw[], units: Units): Shelf[] {
  switch (order) {
    case 'due': {
      const place = new Map(urgent.map((id, i) => [id, i]));
      const last = urgent.length;
      const of = (b: Blade) => place.get(b.id) ?? last;
      return [{ heading: '', blades: [...blades].sort((a, b) => of(a) - of(b)) }];
    }
    case 'name':
      return [{ heading: '', blades: [...blades].sort((a, b) => a.name.localeCompare(b.name)) }];
    case 'size':
      return shelves(
        [...blades].sort((a, b) => b.diameter_mm - a.diameter_mm),
        (b) => String(b.diameter_mm),
        (b) =>
          [
            formatLength(b.diameter_mm, units),
            ...saws.filter((s) => s.diameter_mm === b.diameter_mm).map((s) => s.name),
          ].join(', '),
      );
    case 'use':
      return shelves(
        blades,
        (b) => b.kept_for,
        (b) => t`For ${keptForWords[b.kept_for]}`,
      ).map((s) => ({
        ...s,
        heading: upper(s.heading),
      }));
  }
}

function shelves(blades: Blade[], key: (b: Blade) => string, heading: (b: Blade) => string): Shelf[] {
  const out = new Map<string, Shelf>();
  for (const b of blades) {
    const shelf = out.get(key(b));
    if (shelf) shelf.blades.push(b);
    else out.set(key(b), { heading: heading(b), blades: [b] });
  }
  return [...out.values()];
}
