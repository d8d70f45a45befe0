/** What the frame shows once the first page stands, fetched together. */
export { Hands } from './Hands';
export { Rest } from './Rest';
export { Said } from './Said';
export { Waiting } from './Waiting';
