/** Asks before a page is left with changes that nobody saved. */
import { t } from '@lingui/core/macro';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useEffect, useRef, type ReactNode } from 'react';
import { useBlocker } from 'react-router';

interface Unsaved {
  saved: () => void; // lets the page be left: nothing is lost any more
  question: ReactNode; // to stand anywhere in the page
}

export function useUnsaved(changed: boolean): Unsaved {
  const free = useRef(false);
  const leaving = useBlocker(
    ({ currentLocation, nextLocation }) =>
      changed && !free.current && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!changed) return;
    free.current = false;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault(); // the browser's own question
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [changed]);
  return {
    saved: () => {
      free.current = true;
    },
    question: (
      <Dialog open={leaving.state === 'blocked'} onClose={() => leaving.reset?.()} fullWidth maxWidth="xs">
        <DialogTitle>{t`Leave without saving?`}</DialogTitle>
        <DialogContent>{t`Your changes aren't saved yet.`}</DialogContent>
        <DialogActions>
          <Button color="error" onClick={() => leaving.proceed?.()}>{t`Leave`}</Button>
          <Button variant="contained" autoFocus onClick={() => leaving.reset?.()}>{t`Stay here`}</Button>
        </DialogActions>
      </Dialog>
    ),
  };
}
