/** That a blade was mended and inspected, and by whom; or that it cannot be. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useRef, useState } from 'react';
import { useMend } from '../api/care';
import type { Blade } from '../api/types';
import { LineField } from './Fields';
import { Trouble } from './Notice';

export function Mend({ blade }: { blade: Blade }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button size="small" variant="outlined" onClick={() => setOpen(true)}>{t`Repaired…`}</Button>
      {open && <MendDialog blade={blade} onClose={() => setOpen(false)} />}
    </>
  );
}

function MendDialog({ blade, onClose }: { blade: Blade; onClose: () => void }) {
  const [mended, setMended] = useState('');
  const [inspected, setInspected] = useState('');
  const [what, setWhat] = useState('');
  const mend = useMend();
  const key = useRef(crypto.randomUUID());
  const send = (cannot: boolean) =>
    mend.mutate(
      {
        id: blade.id,
        key: key.current,
        body: {
          mended_by: mended || inspected,
          inspected_by: inspected,
          what: what || undefined,
          cannot: cannot || undefined,
        },
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>{t`${blade.name}: repaired and inspected`}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>
          {t`Found: ${blade.condition.unfit}. Sending it out is not enough. Note who repaired it and who inspected it after the repair.`}
        </Box>
        <Box sx={{ display: 'grid', gap: 2, pt: 0.5 }}>
          <LineField label={t`Repaired by`} value={mended} most={60} onText={setMended} />
          <LineField label={t`Inspected by`} value={inspected} most={60} onText={setInspected} />
          <LineField label={t`Work done`} value={what} most={500} rows={2} onText={setWhat} />
          {mend.error && <Trouble>{mend.error.message}</Trouble>}
        </Box>
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap', gap: 1 }}>
        <Button onClick={onClose}>{t`Cancel`}</Button>
        <Button disabled={inspected === '' || mend.isPending} onClick={() => send(true)}>
          {t`Can't be repaired: retire it`}
        </Button>
        <Button
          variant="contained"
          disabled={mended === '' || inspected === '' || mend.isPending}
          onClick={() => send(false)}
        >
          {t`Back in use`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
