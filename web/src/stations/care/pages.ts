/** Care: what is due, washes, baths, what goes out to be sharpened, and what it costs. */
export { Care } from './Care';
export { MoneyPage } from './MoneyPage';
export { NewBath } from './NewBath';
export { NewWash } from './NewWash';
export { Slip } from './Slip';
export { Wash } from './Wash';
