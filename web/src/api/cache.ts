/** Where answers of the server are kept in this browser (fallback.ts), and the shelf that the core here weighs by (core.ts). */
import { place } from './place';

export interface Cached {
  at: number; // when the server said it
  data: unknown;
}

export const PREFIX = `corte.said.${place}`;
export const SHELF = `${PREFIX}["shelf"]`; // what the core here weighs by
