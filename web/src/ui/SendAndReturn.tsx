/** A blade goes to the saw doctor and comes back. */
import { t } from '@lingui/core/macro';
import { listOf } from '../measure/format';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useSendOut, useTakeBack } from '../api/care';
import { useBlades, useStandIns } from '../api/rack';
import type { BladeCare, Returned, Sending } from '../api/types';
import { usePreferences } from './preferences';
import { CheckField, LineField, NumberField } from './Fields';
import { LengthField } from './LengthField';
import { useAfterReading } from './useAfterReading';
import { useRecord } from './useRecord';
import { Trouble } from './Notice';

export function SendDialog({ care: c, onClose }: { care: BladeCare; onClose: () => void }) {
  const b = c.blade;
  const send = useSendOut();
  const standIns = useStandIns(b.id).data;
  const key = useRef(crypto.randomUUID());
  const go = useNavigate();
  const { input, set, problem, bounded } = useRecord<Sending>({ to: '' }, 'Sending');
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>{t`Send ${b.name} out`}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>
          {standIns &&
            (standIns.length > 0
              ? t`Use ${listOf(standIns, 'disjunction')} meanwhile.`
              : t`You have no other blade of this kind meanwhile.`)}{' '}
          {c.sharpenings_left === 0 && t`It may have no sharpening left. Ask before you pay.`}
        </Box>
        <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { sm: '1fr 1fr' }, pt: 0.5 }}>
          <Box sx={{ gridColumn: '1 / -1' }}>
            <LineField
              label={t`Sharpening service`}
              value={input.to}
              most={120}
              onText={(to) => set({ to })}
            />
          </Box>
          <TextField
            label={t`Expected back`}
            type="date"
            size="small"
            slotProps={{ inputLabel: { shrink: true } }}
            onChange={(e) => set({ expected: e.target.value || undefined })}
          />
          <NumberField
            label={t`Price quoted`}
            value={input.price_asked}
            onNumber={(price_asked) => set({ price_asked })}
            problem={problem('price_asked')}
          />
          <Box sx={{ gridColumn: '1 / -1' }}>
            <LineField
              label={t`What to do`}
              value={input.note ?? ''}
              most={500}
              onText={(note) => set({ note: note || undefined })}
            />
          </Box>
        </Box>
        {send.error && <Trouble sx={{ mt: 2 }}>{send.error.message}</Trouble>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Cancel`}</Button>
        <Button
          variant="contained"
          disabled={!bounded || input.to === '' || send.isPending}
          onClick={() =>
            send.mutate(
              { id: b.id, key: key.current, body: input },
              {
                onSuccess: () => {
                  onClose();
                  void go(`/care/slip?b=${b.id}`);
                },
              },
            )
          }
        >
          {t`Send out and print slip`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

export function TakeBack({ id, name }: { id: string; name: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        size="small"
        variant="outlined"
        onClick={() => setOpen(true)}
        aria-label={t`It's back: ${name}`}
      >
        {t`It's back`}
      </Button>
      {open && <BackDialog id={id} name={name} onClose={() => setOpen(false)} />}
    </>
  );
}

function BackDialog({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const { units } = usePreferences();
  const back = useTakeBack();
  const rack = useBlades();
  const b = rack.data?.find((x) => x.id === id);
  const key = useRef(crypto.randomUUID());
  const { input, set, problem, bounded, now } = useRecord<Returned>({ sharpened: true }, 'Returned');
  const hangUp = useAfterReading(() =>
    back.mutate({ id, key: key.current, body: now() }, { onSuccess: onClose }),
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>{t`${name} is back`}</DialogTitle>
      <DialogContent>
        <CheckField
          label={t`Sharpened`}
          value={input.sharpened}
          onCheck={(sharpened) => set({ sharpened })}
        />
        <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { sm: '1fr 1fr' }, pt: 1 }}>
          <NumberField
            label={t`Price`}
            value={input.price}
            onNumber={(price) => set({ price })}
            problem={problem('price')}
          />
          <NumberField
            label={t`Teeth replaced`}
            value={input.teeth_replaced}
            onNumber={(teeth_replaced) => set({ teeth_replaced })}
            problem={problem('teeth_replaced')}
          />
          <NumberField
            label={t`Sharpenings left`}
            value={input.sharpenings_left}
            onNumber={(sharpenings_left) => set({ sharpenings_left })}
            problem={problem('sharpenings_left')}
          />
          <span />
          <LengthField
            label={t`New kerf`}
            mm={input.kerf_mm ?? b?.kerf_mm ?? 0}
            units={units}
            onLength={(kerf_mm) => set({ kerf_mm })}
            problem={problem('kerf_mm')}
          />
          <LengthField
            label={t`Measured diameter`}
            mm={input.diameter_mm ?? b?.diameter_mm ?? 0}
            units={units}
            onLength={(diameter_mm) => set({ diameter_mm })}
            problem={problem('diameter_mm')}
          />
          <Box sx={{ gridColumn: '1 / -1' }}>
            <LineField
              label={t`Report`}
              value={input.report ?? ''}
              rows={2}
              most={1000}
              onText={(report) => set({ report: report || undefined })}
            />
          </Box>
        </Box>
        {back.error && <Trouble sx={{ mt: 2 }}>{back.error.message}</Trouble>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Not yet`}</Button>
        <Button
          variant="contained"
          disabled={!bounded || back.isPending}
          onClick={hangUp}
        >{t`Put back in the rack`}</Button>
      </DialogActions>
    </Dialog>
  );
}
