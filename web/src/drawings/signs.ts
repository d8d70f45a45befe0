/** The signs of what was done to a blade, about their own middle: the same wherever they stand. */
export const DROP = 'M0 -7C4 -1 5 1 5 3A5 5 0 0 1 -5 3C-5 1 -4 -1 0 -7Z'; // a wash
export const WEDGE = 'M-6 5L0 -7L6 5Z'; // a sharpening
