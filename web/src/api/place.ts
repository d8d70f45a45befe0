/**
 * Whose shop this page is of. The demo shop is looked at under an address of its
 * own, so that no two tabs mix up what is whose.
 */
export const LOOK_ROUND = '/demo/';

export const lookingRound = location.pathname.startsWith(LOOK_ROUND);

/** What stands before every address of this shop. */
export const place = lookingRound ? '/demo' : '';

/** Where the contract is answered. */
export const api = `${place}/api/v1`;
