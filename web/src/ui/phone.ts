/** Whether this is a phone in the hand: the one width at which pages are composed otherwise. */
import useMediaQuery from '@mui/material/useMediaQuery';

export const PHONE = '(max-width: 599px)';

export const usePhone = () => useMediaQuery(PHONE);
