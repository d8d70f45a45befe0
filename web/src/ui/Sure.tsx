/** A button that asks before something is gone for good, and says what goes. */
import { t } from '@lingui/core/macro';
import Button, { type ButtonProps } from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';

interface Props extends Pick<ButtonProps, 'size' | 'color' | 'disabled' | 'sx'> {
  children: string; // what the button says
  asks: string; // the question
  goes: string; // what is lost by it
  yes: string;
  onYes: () => void;
}

export function Sure({ children, asks, goes, yes, onYes, ...button }: Props) {
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <>
      <Button {...button} onClick={() => setOpen(true)}>
        {children}
      </Button>
      <Dialog open={open} onClose={close} fullWidth maxWidth="xs">
        <DialogTitle>{asks}</DialogTitle>
        <DialogContent>{goes}</DialogContent>
        <DialogActions>
          <Button onClick={close} autoFocus>{t`Cancel`}</Button>
          <Button
            color="error"
            variant="outlined"
            onClick={() => {
              close();
              onYes();
            }}
          >
            {yes}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
