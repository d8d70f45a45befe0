/** What the frame shows once the first page stands, fetched together. */
export { Away } from './Away';
export { Hands } from './Hands';
export { LookingRound } from './LookingRound';
export { NewVersion } from './NewVersion';
export { NoWayBack } from './NoWayBack';
export { Rest } from './Rest';
export { Waiting } from './Waiting';
export { ZoneOffer } from './ZoneOffer';
