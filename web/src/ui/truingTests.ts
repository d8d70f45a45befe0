/** The guided sessions of True: what each is called, what it reads, and where its dial goes. */
import { t } from '@lingui/core/macro';
import type { Place } from '../api/truing';
import type { TruingTest } from '../api/types';

interface Words {
  title: string;
  why: string;
  how: string[];
  distance?: string[]; // where a rule or caliper reads it
  dial?: string[]; // where a dial indicator does
}

export const testWords: Record<TruingTest, Words> = {
  heel: {
    title: t`Blade to slot`,
    why: t`A blade whose rear leans toward the fence traps the work and burns it.`,
    how: [
      t`Power off. Dial on a bar in the miter slot, its foot square to the plate, near the table.`,
      t`Mark one tooth. Read it at the front; turn that same tooth to the rear, slide the dial there, and read again.`,
    ],
    distance: [
      t`Unplug the saw. Measure from the side of the miter slot to one marked tooth, at the front of the blade.`,
      t`Turn that same tooth to the rear and measure it there.`,
    ],
  },
  fence: {
    title: t`Fence to slot`,
    why: t`Parallel, or open at the rear by a hair. Never closing.`,
    how: [t`Lock the fence as for a cut. Read the way from slot to fence at the front and at the rear.`],
    dial: [
      t`Lock the fence as for a cut. Dial on a bar in the miter slot, its foot on the fence: read it at the front and at the rear.`,
    ],
  },
  runout: {
    title: t`Run-out`,
    why: t`A plate that wobbles cuts wide and leaves a mark once a turn.`,
    how: [
      t`Power off. Dial on the plate, just below the gullets. Read at equal steps round, turning by hand.`,
      t`Then loosen the nut, turn the blade half round on the arbor, and read the same places again: that tells arbor from blade.`,
    ],
  },
  tilt: {
    title: t`Tilt`,
    why: t`Square to the table, so that ends are square to faces.`,
    how: [
      t`Crosscut a wide board on edge. Flip one half over and butt the ends: the gap shows twice the error.`,
    ],
  },
  gauge: {
    title: t`Gauge, by five cuts`,
    why: t`Every end that the gauge cuts takes on its error.`,
    how: [
      t`Cut all four sides of a square, turning it the same way each time, then a strip off the first side again: the fifth cut.`,
      t`Measure the strip at the end that was cut first and at the end cut last.`,
    ],
  },
  clearance: {
    title: t`Side clearance`,
    why: t`A tooth that stands out sideways scores the wall once a turn.`,
    how: [
      t`Blade flat, dial on the plate set to nothing, then slid out to the widest point of each tip.`,
      t`Begin at the chalk mark and go round the way it turns; then the other side.`,
    ],
  },
  width: {
    title: t`Exact width`,
    why: t`Cut a little wide, measure the piece, move the fence by the difference.`,
    how: [t`Cut a test piece a little over size and measure it with a caliper.`],
  },
  depth: {
    title: t`Exact depth`,
    why: t`Cut a little shy, measure, go deeper by the difference; end every move deeper.`,
    how: [t`Cut a test groove a little shy and measure its depth.`],
  },
  scoring: {
    title: t`Scoring blade`,
    why: t`A score a little wider than the kerf, and over its middle, leaves no chips and no step.`,
    how: [
      t`Cut 50 mm into scrap, switch off, and wait until both blades have stopped.`,
      t`Turn the scrap over. Measure how far the score stands out beside the main kerf, on the left and on the right.`,
    ],
  },
};

/** Where a stand-in gauge is put for a reading. */
export function placeOf(
  test: TruingTest,
  round: 0 | 1,
  i: number,
  n: number,
): { where: Place; step?: number; of?: number } | undefined {
  switch (test) {
    case 'heel':
      return { where: i === 0 ? 'heel-front' : 'heel-rear' };
    case 'fence':
      return { where: i === 0 ? 'fence-front' : 'fence-rear' };
    case 'runout':
      return { where: round === 0 ? 'runout' : 'turned', step: i, of: n };
    case 'clearance':
      return { where: round === 0 ? 'left' : 'right', step: i, of: n };
    default:
      return undefined;
  }
}

/** What a reading is called, so that nobody loses count. */
export function nameOf(test: TruingTest, round: 0 | 1, i: number, n: number): string {
  switch (test) {
    case 'heel':
    case 'fence':
      return i === 0 ? t`Front` : t`Rear`;
    case 'gauge':
      return i === 0 ? t`Cut first` : t`Cut last`;
    case 'scoring':
      return i === 0 ? t`Left` : t`Right`;
    case 'runout':
      return `${round === 1 ? t`Turned, ` : ''}${Math.round((360 * i) / n)}°`;
    case 'clearance':
      return `${round === 0 ? t`Left` : t`Right`} ${i + 1}`;
    default:
      return String(i + 1);
  }
}

/** Teeth as people count them, from 1. */
export const readSlots = (text: string) =>
  text
    .split(/[^0-9]+/)
    .filter(Boolean)
    .map((it) => Number(it) - 1)
    .filter((i) => i >= 0);
