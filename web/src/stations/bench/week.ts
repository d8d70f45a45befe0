/** What the marks of a day are drawn and said as. */
import { plural, t } from '@lingui/core/macro';
import type { DayMark, LogKind, Units } from '../../api/types';
import type { DayGlyphs } from '../../drawings/WeekGlyphs';
import { formatRun } from '../../measure/format';

/** So many calendar days up to one, the oldest first. */
export function daysUpTo(until: string, n: number): string[] {
  const last = Date.parse(`${until}T00:00:00Z`);
  return Array.from({ length: n }, (_, i) =>
    new Date(last - (n - 1 - i) * 86_400_000).toISOString().slice(0, 10),
  );
}

const any = (marks: DayMark[], ...kinds: LogKind[]) => marks.some((m) => kinds.includes(m.kind));
const sum = (marks: DayMark[], of: 'metres' | 'pieces' | 'burnt' | 'splintery' | 'rows') =>
  marks.reduce((all, m) => all + (m[of] ?? 0), 0);

export const glyphsOf = (marks: DayMark[]): DayGlyphs => ({
  metres: sum(marks, 'metres'),
  changed: any(marks, 'mounted', 'dismounted'),
  washed: any(marks, 'washed'),
  sharpened: any(marks, 'sent', 'sharpened', 'returned'),
  measured: any(marks, 'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance', 'moved'),
  noted: any(
    marks,
    'inspected',
    'judged',
    'mended',
    'noted',
    'compared',
    'traced',
    'grooved',
    'renewed',
    'retired',
    'restored',
  ),
  burnt: sum(marks, 'burnt') > 0,
  splintery: sum(marks, 'splintery') > 0,
});

const doneTo: [LogKind[], string][] = [
  [['mounted'], t`mounted`],
  [['washed'], 'washed'],
  [['sent'], t`sent out`],
  [['sharpened'], t`back, sharpened`],
  [['returned'], t`back, not sharpened`],
  [['inspected', 'judged', 'mended', 'noted'], t`inspected or noted`],
  [['retired'], 'retired'],
  [['restored'], t`put back in the rack`],
];

const atSaw: [LogKind[], string][] = [
  [['heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance'], 'measured'],
  [['moved'], t`moved or bumped`],
  [['compared'], t`two settings compared`],
  [['traced'], t`a fault diagnosed`],
  [['grooved'], 'grooves'],
];

/** A day in a few lines: what was cut of what, how it came out, and what was done to blades and saw. */
export function saidOf(marks: DayMark[], units: Units): string[] {
  const out: string[] = [];
  const cuts = marks.filter((m) => m.kind === 'cut');
  const materials = new Map<string, DayMark[]>();
  for (const c of cuts)
    materials.set(c.material_name ?? '', [...(materials.get(c.material_name ?? '') ?? []), c]);
  for (const [name, of] of materials)
    out.push(
      t`${formatRun(sum(of, 'metres'), units)} of ${name}, ${plural(sum(of, 'pieces'), { one: '# piece', other: '# pieces' })}`,
    );
  if (sum(cuts, 'burnt') > 0) out.push(t`burn marks`);
  if (sum(cuts, 'splintery') > 0) out.push(t`some tear-out`);
  for (const [kinds, words] of doneTo) {
    const names = [...new Set(marks.filter((m) => kinds.includes(m.kind)).map((m) => m.blade_name ?? ''))];
    if (names.length > 0) out.push(`${names.join(', ')} ${words}`);
  }
  for (const [kinds, words] of atSaw) if (any(marks, ...kinds)) out.push(words);
  return out;
}
