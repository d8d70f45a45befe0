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
  ['dull', t`It is dull now`],
  ['half-worn', t`It is half worn`],
  ['sharp', t`It is sharp`],
  ['hard', t`It feeds hard`],
  ['pitchy', t`It is pitchy`],
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
            {t`Say: ${words.toLowerCase()}`}
          </MenuItem>
        ))}
        <MenuItem onClick={() => show('look')}>{t`Look it over…`}</MenuItem>
        <MenuItem onClick={() => void go(`/rack/${b.id}/survey`)}>{t`Look it over, place by place`}</MenuItem>
        <MenuItem onClick={() => show('note')}>{t`Write a note…`}</MenuItem>
        {!b.condition.away && <MenuItem onClick={() => show('send')}>{t`Send it out…`}</MenuItem>}
        <MenuItem onClick={() => void go(`/care/money/${b.id}`)}>{t`What it costs`}</MenuItem>
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
      <DialogTitle>{t`Look ${name} over`}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>
          {t`Off the saw, power off, gloves. Good light: tips, gullets, slots, both faces of the plate.`}
        </Box>
        <Box sx={{ display: 'grid', gap: 2, pt: 0.5 }}>
          <SelectField
            label={t`Found`}
            value={fault}
            choices={[
              ['sound', t`All sound`] as const,
              ...faults.map((f) => [f.fault, upper(f.says)] as const),
            ]}
            onChoose={setFault}
          />
          <LineField label={t`Note`} value={note} most={500} onText={setNote} />
          {faults.some((f) => f.fault === fault && f.unfits) && (
            <Trouble>
              {t`It is not run like this. Corte keeps it off every saw until somebody has mended and inspected it, or it is retired.`}
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
          {t`That is what I found`}
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
      <DialogTitle>{t`A note on ${name}`}</DialogTitle>
      <DialogContent>
        <Box sx={{ pt: 0.5 }}>
          <LineField
            label={t`Note`}
            value={note}
            rows={2}
            most={500}
            onText={setNote}
            hint={t`Where it is stored, what was seen`}
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
          {t`Write it`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
