/** Taking a blade or saw out of use, with the reason; it cannot be done by a slip of the finger. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { Retirement } from '../../api/types';
import { retiredWords } from '../../drawings/recordWords';
import { LineField, SelectField } from '../../ui/Fields';

interface Props {
  what: string;
  name: string;
  reasons: Retirement['reason'][];
  onRetire: (body: Retirement) => void;
}

export function Retire({ what, name, reasons, onRetire }: Props) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState<Retirement['reason'] | ''>('');
  const [note, setNote] = useState('');
  return (
    <>
      <Button color="error" onClick={() => setOpen(true)}>{t`Retire`}</Button>
      <Dialog open={open} onClose={() => setOpen(false)} fullWidth maxWidth="xs">
        <DialogTitle>{t`Retire ${name}?`}</DialogTitle>
        <DialogContent>
          <Box sx={{ mb: 2 }}>
            {t`A retired ${what} is no longer offered. Its log stays, and you can bring it back.`}
          </Box>
          <Box sx={{ display: 'grid', gap: 2, pt: 0.5 }}>
            <SelectField
              label={t`Why`}
              value={reason}
              choices={reasons.map((r) => [r, retiredWords[r] ?? r] as const)}
              onChoose={setReason}
            />
            <LineField label={t`Note`} value={note} most={500} onText={setNote} />
          </Box>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>{t`Keep`}</Button>
          <Button
            color="error"
            variant="outlined"
            disabled={reason === ''}
            onClick={() => {
              setOpen(false);
              if (reason !== '') onRetire({ reason, note: note || undefined });
            }}
          >
            {t`Retire`}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
