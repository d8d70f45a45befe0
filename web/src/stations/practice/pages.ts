/** Learning: drills, the reasons behind them, and what the words of the craft mean. */
export { Words } from './Words';
export { DrillPage } from './DrillPage';
export { Shelf } from './Shelf';
export { Why } from './Why';
