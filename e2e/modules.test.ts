/** Modules of the front end, without a page: drawings held to their numbers, formats, parsers, search and order. */
import { expect, test } from '@playwright/test';
import table from '../core/measure/testdata/format.json' with { type: 'json' };
import type { Blade, Cut, DayMark, Saw } from '../web/src/api/types';
import { daysUpTo, glyphsOf } from '../web/src/stations/bench/week';
import { hang } from '../web/src/stations/rack/order';
import { matches, type Wanted } from '../web/src/stations/rack/search';
import { readNumbers, readRounds } from '../web/src/measure/readings';
import { nameOf, placeOf, readSlots } from '../web/src/ui/truingTests';
import { pick } from '../web/src/ui/pick';
import { bladePath, slotsPath, tipsPath } from '../web/src/drawings/blade';
import { cutBrief, cutSaid, shortSpecOf, specOf } from '../web/src/drawings/words';
import {
  formatDial,
  formatFigure,
  formatLength,
  formatRun,
  formatSetting,
  formatThin,
  formatVolume,
  heightStep,
  trim,
  typedNumber,
} from '../web/src/measure/format';

const rip = { diameter_mm: 254, teeth: 24, hook_deg: 20, gullet_depth_mm: 14 };

/** Points of a path as radius and angle, y up. */
const points = (d: string) =>
  [...d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => {
    const [px, py] = [Number(x), -Number(y)];
    return { r: Math.hypot(px, py), angle: Math.atan2(py, px) };
  });

test('an outline has its teeth, its radius and its gullets', () => {
  for (const b of [rip, { ...rip, teeth: 80, hook_deg: -3, gullet_depth_mm: 4.5 }]) {
    const all = points(bladePath(b));
    const tips = all.filter((p) => Math.abs(p.r - 127) < 0.02);
    expect(new Set(tips.map((p) => p.angle.toFixed(3))).size).toBe(b.teeth);
    expect(Math.min(...all.map((p) => p.r))).toBeCloseTo(127 - b.gullet_depth_mm, 1);
    expect(Math.max(...all.map((p) => p.r))).toBeLessThan(127.02);
  }
  expect(bladePath({ ...rip, teeth: 0 })).toContain('A127 127');
});

test('a strong hook leans its faces, none stands upright, a negative one leans away', () => {
  const lean = (hook: number) => {
    const [tip, face] = points(tipsPath({ ...rip, hook_deg: hook }));
    return Math.sign(Math.round((tip!.angle - face!.angle) * 1000)) + 0;
  };
  expect([lean(20), lean(0), lean(-5)]).toEqual([1, 0, -1]);
});

test('a tooth is drawn to its measures', () => {
  const r = 127;
  const behind = (p: { angle: number }) => (Math.PI / 2 - p.angle) * r; // along the rim, from the first tip
  const pitch = (2 * Math.PI * r) / 24;
  const [tip, land, back, turn, bottom, foot, face, next] = points(bladePath(rip));
  const near = (all: number[]) => all.map((mm) => expect.closeTo(mm, 1));
  expect([tip!, land!, face!, next!].map((p) => r - p.r)).toEqual(near([0, 0.24 * 4, 0.66 * 14, 0]));
  expect(behind(land!)).toBeCloseTo(4, 1);
  expect([r - bottom!.r, r - foot!.r, r - turn!.r]).toEqual(
    [14, 14, 0.98 * 14].map((d) => expect.closeTo(d, 1)),
  );
  expect(r - back!.r).toBeCloseTo(0.44 * 14, 1);
  expect(behind(next!)).toBeCloseTo(pitch, 1);
  expect(behind(face!) - pitch).toBeCloseTo(Math.tan((20 * Math.PI) / 180) * 0.66 * 14, 0); // leans by its hook
  const [slot, end] = points(slotsPath(rip, 4));
  expect([r - slot!.r, r - end!.r]).toEqual([
    expect.closeTo(0.98 * 14, 1),
    expect.closeTo(0.98 * 14 + 20, 1),
  ]);
  expect(slotsPath(rip, 4).split('M')).toHaveLength(5);
});

test('only the teeth in the wood are marked', () => {
  const marked = (from: number, to: number) => tipsPath(rip, Math.PI / 2, [from, to]).split('M').length - 1;
  expect(marked(0, Math.PI / 2 + 0.001)).toBe(7);
  expect(marked(-0.001, 2 * Math.PI - 0.01)).toBe(24);
  expect(marked(Math.PI * 0.9, Math.PI * 1.1 + 0.001)).toBeLessThanOrEqual(3); // across the turn
});

test('figures are written as a shop writes them', () => {
  expect([trim(1300, 0), trim(80, 0), trim(1.5, 1), trim(-0.01, 1), trim(0.5, 2)]).toEqual([
    '1300',
    '80',
    '1.5',
    '0',
    '0.5',
  ]);
  expect([formatSetting(22.06, 'mm'), formatSetting(22, 'in')]).toEqual(['22.1 mm', '55/64"']);
  expect([formatThin(3.2, 'mm'), formatThin(2.4, 'in')]).toEqual(['3.2 mm', '0.094"']);
  expect([formatRun(0.9, 'mm'), formatRun(873.4, 'mm'), formatRun(30.48, 'in')]).toEqual([
    '0.9 m',
    '873 m',
    '100 ft',
  ]);
  expect(heightStep.in * 64).toBeCloseTo(25.4, 12);
  const blade = { teeth: 80, grind: 'HIATB', hook_deg: -2, kerf_mm: 3, make: 'toothed' } as const;
  expect(specOf(blade, 'mm')).toBe('80 high ATB, hook −2°, kerf 3 mm');
  expect(shortSpecOf({ ...blade, grind: undefined, make: 'diamond' })).toBe('diamond wheel');
});

test('figures have the decimal sign of the language that pages are in', async () => {
  const { i18n } = await import('../web/node_modules/@lingui/core/dist/index.mjs');
  i18n.loadAndActivate({ locale: 'es', messages: {} });
  const said = [trim(1300, 0), trim(1.5, 2), trim(80, 1), formatThin(2.4, 'in'), formatLength(20, 'in')];
  i18n.loadAndActivate({ locale: 'en', messages: {} });
  expect([...said, trim(1.5, 2)]).toEqual(['1300', '1,5', '80', '0,094"', '25/32" +0,006', '1.5']);
});

test('a comma that may part thousands is no number yet', () => {
  for (const [text, number] of [
    ['7,5', 7.5],
    [' −0,125 ', -0.125],
    ['7000', 7000],
    ['1220,125', 1220.125],
    ['7,000', NaN],
    ['-1,220', NaN],
    ['seven', NaN],
  ] as const)
    expect(typedNumber(text)).toBe(number);
});

test('a dial is written as it reads', () => {
  const read = [
    formatDial(0.0342, 'mm'),
    formatDial(-0.14, 'mm'),
    formatDial(0.1524, 'in'),
    formatDial(0.00254, 'in'),
  ];
  expect(read).toEqual(['0.034 mm', '-0.14 mm', '0.006"', '0.0001"']);
});

test('a pasted column is read, whatever stands beside its readings', () => {
  expect(readNumbers('0.5\n0.51\r\n-0.02\n', 'mm')).toEqual([0.5, 0.51, -0.02]);
  expect(readNumbers('place,first_mm,second_mm\nLeft 1,0.5,\nLeft 2,0.51,\n', 'mm')).toEqual([0.5, 0.51]);
  expect(readNumbers('1;0.5\n2;0.6', 'mm')).toEqual([0.5, 0.6]);
  expect(readNumbers('1\t0.02\n2\t0.03', 'in').map((v) => v.toFixed(3))).toEqual(['0.508', '0.762']);
  expect(readNumbers('1;0,5\n2;-0,6', 'mm')).toEqual([0.5, -0.6]);
  expect(readNumbers('0,05\n0,06', 'mm')).toEqual([0.05, 0.06]);
  expect(readNumbers('1,0.5\n2,0.6', 'mm')).toEqual([0.5, 0.6]);
  expect(readNumbers('nothing of it', 'mm')).toEqual([]);
  const saved = 'place,first_mm,second_mm\nLeft 1,0.5,0.4\nLeft 2,0.51,\n';
  expect(readRounds(saved, 'in'), 'a saved file says its own unit').toEqual([[0.5, 0.51], [0.4]]);
  expect(readRounds('0.5\n0.51', 'mm')).toEqual([[0.5, 0.51], []]);
  expect(readSlots('10, 11 und 30')).toEqual([9, 10, 29]);
});

test('nobody loses count, and a stand-in goes where the page says', () => {
  expect([nameOf('heel', 0, 1, 2), nameOf('runout', 1, 3, 12), nameOf('clearance', 1, 4, 60)]).toEqual([
    'Rear',
    'Turned, 90°',
    'Right 5',
  ]);
  expect(placeOf('runout', 1, 3, 12)).toEqual({ where: 'turned', step: 3, of: 12 });
  expect(placeOf('gauge', 0, 0, 2)).toBeUndefined();
});

test('a blade is found by what people call it', () => {
  const blade = {
    name: 'Plough',
    hangs: 'table wall, peg 1',
    note: 'Nobody cuts ply with it.',
    kept_for: 'rip',
    make: 'toothed',
    grind: 'FTG',
    teeth: 24,
    diameter_mm: 254,
    kerf_mm: 3.2,
    condition: { state: 'fine' },
  } as Blade;
  const found = (text: string, more: Partial<Wanted> = {}) =>
    matches(blade, { text, use: '', state: '', retired: false, ...more });
  for (const text of [
    '',
    'plough',
    'PEG 1',
    '24 ftg',
    '24t',
    'flat ripping',
    'wall, peg',
    'nobody ply',
    '254',
    '3.2',
  ])
    expect(found(text), text).toBe(true);
  for (const text of ['ploughs', 'peg 2', '24 ATB', '25']) expect(found(text), text).toBe(false);
  expect(found('plough', { use: 'sheet' })).toBe(false);
  expect(found('plough', { use: 'rip', state: 'dull' })).toBe(false);
});

test('a form edits a part of a record, and leaves the rest alone', () => {
  const from = { name: 'Plough', version: 3, teeth: 24 };
  expect(pick(from, ['name', 'teeth'] as const)).toEqual({ name: 'Plough', teeth: 24 });
});

test('lengths are written as the core writes them', () => {
  for (const row of table) {
    expect(formatLength(row.mm, 'mm')).toBe(row.metric);
    expect(formatLength(row.mm, 'in')).toBe(row.inch);
  }
  expect([formatFigure(0.1234, 'deg', 'in'), formatFigure(0.254, 'mm', 'in')]).toEqual(['0.123°', '0.01"']);
  expect([
    formatVolume(0.25, 'mm'),
    formatVolume(1, 'mm'),
    formatVolume(0.9, 'in'),
    formatVolume(1, 'in'),
  ]).toEqual(['250 ml', '1 l', '30.4 fl oz', '1.1 qt']);
});

test('the rack hangs as it is asked to', () => {
  const of = (id: string, name: string, diameter_mm: number, kept_for: string) =>
    ({ id, name, diameter_mm, kept_for }) as Blade;
  const blades = [of('a', 'Rook', 254, 'rip'), of('b', 'Heron', 305, 'sheet'), of('c', 'Crane', 254, 'rip')];
  const saws = [{ name: 'Long Table', diameter_mm: 254 }] as Saw[];
  const hung = (order: Parameters<typeof hang>[1]) =>
    hang(blades, order, ['c', 'b'], saws, 'mm').map((s) => [s.heading, ...s.blades.map((b) => b.id)]);
  expect(hung('due')).toEqual([['', 'c', 'b', 'a']]);
  expect(hung('name')).toEqual([['', 'c', 'b', 'a']]);
  expect(hung('size')).toEqual([
    ['305 mm', 'b'],
    ['254 mm, Long Table', 'a', 'c'],
  ]);
  expect(hung('use').map(([, ...ids]) => ids)).toEqual([['a', 'c'], ['b']]);
});

test('the marks of a day add up', () => {
  expect(daysUpTo('2026-03-02', 3)).toEqual(['2026-02-28', '2026-03-01', '2026-03-02']);
  const marks = [
    { kind: 'cut', metres: 12, burnt: 1 },
    { kind: 'cut', metres: 3 },
    { kind: 'washed' },
  ] as DayMark[];
  expect(glyphsOf(marks)).toMatchObject({
    metres: 15,
    washed: true,
    changed: false,
    burnt: true,
    splintery: false,
  });
});

test('a cut is said in a sentence, and briefly', () => {
  const plain: Cut = {
    ...{ saw_id: '', material: 'cherry', direction: 'rip', finish: 'show' },
    ...{ thickness_mm: 25, width_mm: 120, length_mm: 900, pieces: 1, form: 'through', moisture: 'dry' },
  };
  const full: Cut = {
    ...{ ...plain, form: 'groove', depth_mm: 9, miter_deg: 30, bevel_deg: 15, pieces: 2, piece_mm: 400 },
    ...{ moisture: 'wet', moves: true },
  };
  const saw = { name: 'Drop' } as Saw;
  expect(cutSaid(plain, saw, undefined, 'mm')).toBe(
    'Rip 25 mm cherry, 900 mm long and 120 mm wide, all the way through, on the Drop, show face.',
  );
  expect(cutSaid(full, saw, undefined, 'mm')).toBe(
    'Rip 25 mm cherry, 900 mm long and 120 mm wide, as a groove, 9 mm deep, mitered 30°, tilted 15°, on the Drop, ' +
      'show face, pieces of 400 mm, 2 pieces, wet stock, stock with tension.',
  );
  expect(cutBrief(plain, saw, undefined, 'mm')).toBe('Rip 25 mm cherry, 900 mm long, show · Drop');
  expect(cutBrief(full, saw, undefined, 'mm')).toBe(
    'Rip 25 mm cherry, 2 pieces, 900 mm long, as a groove, 9 mm deep, mitered 30°, tilted 15°, show · Drop',
  );
});
