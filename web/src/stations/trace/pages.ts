/** A trace and its beginning, fetched together: one leads to the other. */
export { NewTrace } from './NewTrace';
export { Trace } from './Trace';
