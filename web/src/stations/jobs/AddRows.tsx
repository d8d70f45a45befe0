/** More rows for a list that is kept already. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { rowInput, useChangeJob, useJobList } from '../../api/jobs';
import type { Job, Units } from '../../api/types';
import { Trouble } from '../../ui/Notice';
import { Lines, Typer } from '../../cut/JobLines';
import { rowOf, useSettled } from '../../cut/typedRows';

export function AddRows({ job, units }: { job: Job; units: Units }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const settled = useSettled(text);
  const last = job.rows.at(-1);
  const list = useJobList(settled, units, last && rowInput(last));
  const change = useChangeJob();
  const lines = settled.trim() === '' ? [] : (list.data ?? []);
  const ready = lines.length > 0 && settled === text && !lines.some((l) => l.faults.length > 0);
  const close = () => {
    setOpen(false);
    setText('');
  };
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)} sx={{ minHeight: 48 }}>
        {t`Add rows`}
      </Button>
      <Dialog open={open} onClose={close} fullWidth maxWidth="md">
        <DialogTitle>{t`Add rows to ${job.name}`}</DialogTitle>
        <DialogContent>
          {last && (
            <Box sx={{ mb: 1, color: 'text.secondary' }}>
              {t`What the first line leaves out is taken from ${last.name}.`}
            </Box>
          )}
          <Typer text={text} onText={setText} />
          {lines.length > 0 && (
            <Box sx={{ mt: 2 }}>
              <Lines lines={lines} units={units} />
            </Box>
          )}
          {(change.error ?? list.error) && <Trouble>{(change.error ?? list.error)?.message}</Trouble>}
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>{t`Cancel`}</Button>
          <Button
            variant="contained"
            disabled={!ready || change.isPending}
            onClick={() =>
              change.mutate(
                {
                  job,
                  body: {
                    name: job.name,
                    knobs: job.knobs,
                    units,
                    rows: [...job.rows.map(rowInput), ...lines.map(rowOf)],
                  },
                },
                { onSuccess: close },
              )
            }
          >
            {t`Add rows`}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
