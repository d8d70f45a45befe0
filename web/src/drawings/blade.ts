/**
 * The outline of a blade from its own numbers. This is drawing, not craft: it
 * decides nothing, it only puts the given teeth, hook and gullets on paper.
 *
 * Coordinates are millimetres with the bore at the origin and y up; the blade
 * turns counter-clockwise, so teeth on the left come down and teeth on the
 * right go up.
 */
export interface BladeShape {
  diameter_mm: number;
  teeth: number;
  hook_deg: number;
  gullet_depth_mm: number;
  shoulder?: boolean;
  gullet_shape?: 'unknown' | 'round' | 'hooked' | 'narrow';
}

/** Where a gullet begins to fall and where its bottom begins, as shares of the pitch behind the tip. */
const gullets = {
  round: { fall: 0.4, turn: 0.5, bottom: 0.7 },
  hooked: { fall: 0.5, turn: 0.62, bottom: 0.82 },
  narrow: { fall: 0.66, turn: 0.76, bottom: 0.88 },
} as const;

type Point = readonly [number, number];

const rad = (deg: number) => (deg * Math.PI) / 180;

/** A place on the blade: an angle counter-clockwise from the right, and a depth below the tips. */
function at(r: number, angle: number, depth: number): Point {
  return [(r - depth) * Math.cos(angle), (r - depth) * Math.sin(angle)];
}

const xy = ([x, y]: Point) => `${x.toFixed(2)} ${(-y).toFixed(2)}`;

/** One tooth from its tip backward to the tip behind it, as the middle of an SVG path. */
function tooth(b: BladeShape, tip: number): string {
  const r = b.diameter_mm / 2;
  const pitch = (Math.PI * b.diameter_mm) / b.teeth;
  const deep = b.gullet_depth_mm;
  const lean = Math.tan(rad(b.hook_deg));
  /** A point so far behind the tip along the rim, so far below it. */
  const p = (behind: number, depth: number) => at(r, tip - behind / r, depth);
  const land = Math.min(0.16 * pitch, 4);
  const faceEnd = 0.66 * deep;
  const g = gullets[b.gullet_shape === 'round' || b.gullet_shape === 'narrow' ? b.gullet_shape : 'hooked'];
  // A shoulder stands behind the tooth nearly as high as the tip, then drops.
  const back = b.shoulder
    ? `L${xy(p(0.24 * pitch, 0.2 * deep))}L${xy(p(g.fall * pitch, 0.12 * deep))}`
    : `L${xy(p(g.fall * pitch, 0.44 * deep))}`;
  return [
    `L${xy(p(land, land * 0.24))}`,
    back,
    `Q${xy(p(g.turn * pitch, 0.98 * deep))} ${xy(p(g.bottom * pitch, deep))}`,
    `Q${xy(p(pitch + lean * faceEnd, deep))} ${xy(p(pitch + lean * faceEnd, faceEnd))}`,
    `L${xy(p(pitch, 0))}`,
  ].join('');
}

/** The whole outline as an SVG path, with one tip at the given angle (radians). */
export function bladePath(b: BladeShape, start = Math.PI / 2): string {
  const r = b.diameter_mm / 2;
  if (b.teeth === 0) return circle(r);
  const step = (2 * Math.PI) / b.teeth;
  let d = `M${xy(at(r, start, 0))}`;
  for (let i = 0; i < b.teeth; i++) d += tooth(b, start - i * step);
  return `${d}Z`;
}

/** Slots in the body that take up heat and noise, from the rim inward, each with a hole at its end. */
export function slotsPath(b: BladeShape, slots: number): string {
  const r = b.diameter_mm / 2;
  const from = b.gullet_depth_mm * 0.98;
  const long = Math.min(0.16 * r, 20);
  let d = '';
  for (let i = 0; i < slots; i++) {
    // In a gullet, as they are cut: half a pitch and more behind a tip.
    const tooth = Math.round((i * b.teeth) / slots);
    const angle = Math.PI / 2 - ((tooth + 0.78) * 2 * Math.PI) / b.teeth;
    d += `M${xy(at(r, angle, from))}L${xy(at(r, angle - 0.04, from + long))}`;
  }
  return d;
}

export function circle(r: number): string {
  return `M${r} 0A${r} ${r} 0 1 0 ${-r} 0A${r} ${r} 0 1 0 ${r} 0Z`;
}

/** The carbide tips, one small wedge a tooth, between two angles if given. */
export function tipsPath(b: BladeShape, start = Math.PI / 2, within?: readonly [number, number]): string {
  const r = b.diameter_mm / 2;
  const step = (2 * Math.PI) / b.teeth;
  const pitch = step * r;
  const lean = Math.tan(rad(b.hook_deg));
  const tall = Math.min(0.4 * b.gullet_depth_mm, 6.5);
  const wide = Math.min(0.16 * pitch, 2.6);
  let d = '';
  for (let i = 0; i < b.teeth; i++) {
    const tip = start - i * step;
    if (within && !inside(tip, within)) continue;
    d += `M${xy(at(r, tip, 0))}L${xy(at(r, tip - (lean * tall) / r, tall))}L${xy(at(r, tip - (lean * tall + wide) / r, tall))}L${xy(at(r, tip - wide / r, wide * 0.16))}Z`;
  }
  return d;
}

/** Whether an angle lies between two others, going counter-clockwise from the first. */
function inside(angle: number, [from, to]: readonly [number, number]): boolean {
  const turn = 2 * Math.PI;
  const norm = (a: number) => ((a % turn) + turn) % turn;
  return norm(angle - from) <= norm(to - from);
}
