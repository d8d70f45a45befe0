/** The pages of people, fetched together: whoever opens one has most of the others. */
export { Door } from './Door';
export { Guest } from './Guest';
export { Join } from './Join';
export { Me } from './Me';
export { People } from './People';
