/** What is drawn, held to the numbers that it is drawn from. */
import { expect, test } from '@playwright/test';
import { bladePath, tipsPath } from '../web/src/drawings/blade';
import { shortSpecOf, specOf } from '../web/src/drawings/words';
import { formatRun, formatSetting, formatThin, heightStep, trim } from '../web/src/measure/format';

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
