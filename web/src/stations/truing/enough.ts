/** Whether as much is said of a test as its figure needs. */
import type { TruingTest } from '../../api/types';
import type { Sizes } from './Readings';

export function isEnough(
  test: TruingTest,
  rounds: readonly [number[], number[]],
  places: number,
  sizes: Sizes,
): boolean {
  switch (test) {
    case 'tilt':
      return sizes.gap_mm !== undefined && sizes.height_mm !== undefined;
    case 'width':
    case 'depth':
      return sizes.wanted_mm !== undefined && sizes.measured_mm !== undefined;
    case 'gauge':
      return rounds[0].length === 2 && sizes.length_mm !== undefined;
    case 'clearance':
      return rounds[0].length >= 3;
    default:
      return rounds[0].length === places && (rounds[1].length === 0 || rounds[1].length === places);
  }
}
