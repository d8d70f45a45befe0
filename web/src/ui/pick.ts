/** The part of a record that a form edits. */
export function pick<T extends object, K extends keyof T>(from: T, keys: readonly K[]): Pick<T, K> {
  return Object.fromEntries(keys.map((k) => [k, from[k]])) as Pick<T, K>;
}
