/** Learning: a drill, and what the words of the craft mean. */
export { FeedIt } from './FeedIt';
export { Words } from '../words/Words';
