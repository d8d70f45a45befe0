/** Where a blade and its work stand in a side view, on a table, under an arm and under a shoe. */
import type { Cut, Saw } from '../api/types';

/** Where things stand, in millimetres: x along the cut, y up from the underside of the stock. */
export interface Scene {
  centre: number; // y of the blade's centre
  rim: number; // y of the rim point that the hand moves
  faceIn: number; // y of the face where teeth enter
  faceOut: number; // y of the face where teeth leave
  side: 1 | -1; // on which side of the blade the wood is still whole
  bottom: number; // lowest y shown
  top: number; // highest y shown
}

export function sceneOf(
  motion: Cut['motion'],
  kind: Saw['kind'],
  r: number,
  thick: number,
  h: number,
  full: number,
): Scene {
  if (motion === 'chop') {
    const low = thick * 0.4;
    return {
      centre: low + r,
      rim: low,
      faceIn: thick,
      faceOut: 0,
      side: 1,
      bottom: -24,
      top: Math.max(thick + 70, 110),
    };
  }
  if (kind === 'table') {
    return {
      centre: h - r,
      rim: h,
      faceIn: thick,
      faceOut: 0,
      side: -1,
      bottom: -21,
      top: Math.max(full, thick) + 15,
    };
  }
  return {
    centre: thick - h + r,
    rim: thick - h,
    faceIn: 0,
    faceOut: thick,
    side: 1,
    bottom: Math.min(thick - full, 0) - 26,
    top: thick + 62,
  };
}
