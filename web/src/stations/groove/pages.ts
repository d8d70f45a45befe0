/** Grooves: planning one, fitting one, and joints. */
export { Fitting } from './Fitting';
export { Groove } from './Groove';
export { Joints } from './Joints';
