/** What to own, fetched together. */
export { First } from './First';
export { Own } from './Own';
