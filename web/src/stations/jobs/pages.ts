/** Jobs: the list, one of them, what is next of it, and its stock. */
export { JobPage } from './Job';
export { Jobs } from './Jobs';
export { NewJob } from './NewJob';
export { Next } from './Next';
export { StockPage } from './StockPage';
