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
    why: t`A blade that toes in toward the fence pinches the wood and burns it.`,
    how: [
      t`Disconnect the power. Put the dial indicator on a bar in the miter slot, its tip square to the plate, near the table.`,
      t`Mark one tooth and read it at the front. Turn the same tooth to the rear, slide the dial indicator there, and read again.`,
    ],
    distance: [
      t`Disconnect the power. Measure from the side of the miter slot to one marked tooth, at the front of the blade.`,
      t`Turn that same tooth to the rear and measure it there.`,
    ],
  },
  fence: {
    title: t`Fence to slot`,
    why: t`Parallel, or a little toe-out at the rear. Never toe-in.`,
    how: [t`Lock the fence as for a cut. Measure from slot to fence at the front and at the rear.`],
    dial: [
      t`Lock the fence as for a cut. Put the dial indicator on a bar in the miter slot, its tip on the fence. Read it at the front and at the rear.`,
    ],
  },
  runout: {
    title: t`Run-out`,
    why: t`A blade with run-out cuts wide and leaves one deep mark per turn.`,
    how: [
      t`Disconnect the power. Put the dial indicator on the plate just below the gullets. Turn the blade by hand and read at equal steps.`,
      t`Then loosen the nut, turn the blade half a turn on the arbor, and read the same spots again. That separates arbor from blade.`,
    ],
  },
  tilt: {
    title: t`Tilt`,
    why: t`Square to the table, so ends are square to faces.`,
    how: [
      t`Crosscut a wide board on edge. Flip one half over and push the ends together: the gap is twice the error.`,
    ],
  },
  gauge: {
    title: t`Miter gauge, five-cut test`,
    why: t`Every end you cut with the miter gauge gets its error.`,
    how: [
      t`Cut all four sides of a square, turning it the same way each time. Then cut a strip off the first side again: the fifth cut.`,
      t`Measure the strip at both ends: cut first and cut last.`,
    ],
  },
  clearance: {
    title: t`Side clearance`,
    why: t`A tooth that sticks out sideways leaves one deep mark per turn.`,
    how: [
      t`Lay the blade flat. Zero the dial indicator on the plate, then slide it out to the widest point of each tip.`,
      t`Start at the chalk mark and go around in the direction of rotation. Then measure the other side.`,
    ],
  },
  width: {
    title: t`Exact width`,
    why: t`Cut a little wide, measure the piece, and move the fence by the difference.`,
    how: [t`Cut a test piece a little over size and measure it with a caliper.`],
  },
  depth: {
    title: t`Exact depth`,
    why: t`Cut a little shallow, measure, and go deeper by the difference. Always finish with a move deeper.`,
    how: [t`Cut a test groove a little shallow and measure its depth.`],
  },
  scoring: {
    title: t`Scoring blade`,
    why: t`A score slightly wider than the kerf and centered on it leaves no chips and no step.`,
    how: [
      t`Cut 50 mm into scrap, switch off, and wait until both blades have stopped.`,
      t`Turn the scrap over. Measure how far the score extends past the main kerf on the left and right.`,
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
      return round === 1 ? t`Turned, ${Math.round((360 * i) / n)}°` : `${Math.round((360 * i) / n)}°`;
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
