/** What can be said of a blade, and done with it. */
import { t } from '@lingui/core/macro';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useFaults, useInspect, useJudge } from '../api/care';
import { useNote } from '../api/log';
import type { BladeCare, Fault, Judgement } from '../api/types';
import { upper } from '../drawings/words';
import { LineField, SelectField } from './Fields';
import { SendDialog } from './SendAndReturn';
import { Trouble } from './Notice';

const sayings: [Judgement['says'], string][] = [
  ['dull', t`It's dull`],
  ['half-worn', t`It's half worn`],
  ['sharp', t`It's sharp`],
  ['hard', t`It's hard to feed`],
  ['pitchy', t`It has resin buildup`],
  ['like-new', t`It cuts like new`],
  ['hit', t`It hit something`],
];

type Open = 'look' | 'note' | 'send';

export function BladeMenu({ care: c }: { care: BladeCare }) {
  const b = c.blade;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState<Open>();
  const judge = useJudge();
  const go = useNavigate();
  const close = () => setAnchor(null);
  const show = (o: Open) => {
    close();
    setOpen(o);
  };
  return (
    <>
      <IconButton
        aria-label={t`More for ${b.name}`}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ width: 44, height: 44 }}
      >
        ⋯
      </IconButton>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={close}
        slotProps={{ list: { 'aria-label': t`More for ${b.name}` } }}
      >
        {sayings.map(([says, words]) => (
          <MenuItem
            key={says}
            onClick={() => {
              close();
              judge.mutate({ id: b.id, key: crypto.randomUUID(), body: { says } });
            }}
          >
            {t`Record: ${words.toLowerCase()}`}
          </MenuItem>
        ))}
        <MenuItem onClick={() => show('look')}>{t`Inspect…`}</MenuItem>
        <MenuItem onClick={() => void go(`/blades/${b.id}/survey`)}>{t`Inspect step by step`}</MenuItem>
        <MenuItem onClick={() => show('note')}>{t`Add note…`}</MenuItem>
        {!b.condition.away && <MenuItem onClick={() => show('send')}>{t`Send to be sharpened…`}</MenuItem>}
        <MenuItem onClick={() => void go(`/care/money/${b.id}`)}>{t`Cost`}</MenuItem>
      </Menu>
      {open === 'look' && <Look id={b.id} name={b.name} onClose={() => setOpen(undefined)} />}
      {open === 'note' && <NoteDialog id={b.id} name={b.name} onClose={() => setOpen(undefined)} />}
      {open === 'send' && <SendDialog care={c} onClose={() => setOpen(undefined)} />}
    </>
  );
}

function Look({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const [fault, setFault] = useState<Fault | 'sound' | ''>('');
  const [note, setNote] = useState('');
  const inspect = useInspect();
  const faults = useFaults().data ?? [];
  const key = useRef(crypto.randomUUID());
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>{t`Inspect ${name}`}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>
          {t`Disconnect the power, wear gloves and take the blade off. In good light, check tips, gullets, slots and both faces of the plate.`}
        </Box>
        <Box sx={{ display: 'grid', gap: 2, pt: 0.5 }}>
          <SelectField
            label={t`Found`}
            value={fault}
            choices={[
              ['sound', t`No damage`] as const,
              ...faults.map((f) => [f.fault, upper(f.says)] as const),
            ]}
            onChoose={setFault}
          />
          <LineField label={t`Note`} value={note} most={500} onText={setNote} />
          {faults.some((f) => f.fault === fault && f.unfits) && (
            <Trouble>
              {t`Don't use this blade. Corte won't offer it until it has been repaired and inspected.`}
            </Trouble>
          )}
          {inspect.error && <Trouble>{inspect.error.message}</Trouble>}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Not now`}</Button>
        <Button
          variant="contained"
          disabled={fault === '' || inspect.isPending}
          onClick={() => {
            if (fault === '') return;
            inspect.mutate(
              {
                id,
                key: key.current,
                body: { fault: fault === 'sound' ? undefined : fault, note: note || undefined },
              },
              { onSuccess: onClose },
            );
          }}
        >
          {t`Save inspection`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

function NoteDialog({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const [note, setNote] = useState('');
  const write = useNote();
  const key = useRef(crypto.randomUUID());
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>{t`Note on ${name}`}</DialogTitle>
      <DialogContent>
        <Box sx={{ pt: 0.5 }}>
          <LineField
            label={t`Note`}
            value={note}
            rows={2}
            most={500}
            onText={setNote}
            hint={t`Anything worth knowing`}
            problem={write.error?.message}
          />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Not now`}</Button>
        <Button
          variant="contained"
          disabled={note === '' || write.isPending}
          onClick={() => write.mutate({ id, key: key.current, note }, { onSuccess: onClose })}
        >
          {t`Save note`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
