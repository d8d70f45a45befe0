/** Puts a row of the log right: what was counted or said wrong, with the row as it stands filled in. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useRef, useState } from 'react';
import { useAmend } from '../api/log';
import type { Amendment, Effort, LogEntry, Units } from '../api/types';
import { EdgeSample, WallSample } from '../drawings/Sample';
import { effortWords, splinterWords, wallWords } from '../drawings/recordWords';
import { LineField, NumberField } from '../ui/Fields';
import { Trouble } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { saysOf } from '../ui/says';

interface Props {
  entry: LogEntry;
  units: Units;
  onClose: () => void;
}

export function PutRight({ entry: e, units, onClose }: Props) {
  const amend = useAmend();
  const key = useRef(crypto.randomUUID());
  const [to, setTo] = useState<Amendment>({});
  const set = (part: Amendment) => {
    key.current = crypto.randomUUID(); // another content is another doing
    setTo((now) => ({ ...now, ...part }));
  };
  const c = e.cut;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="put-right">
      <DialogTitle id="put-right">{t`Correct it`}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 2 }}>{saysOf(e, units)}</Box>
        <Box sx={{ display: 'grid', gap: 2 }}>
          {c && (
            <>
              <NumberField
                label={t`Pieces`}
                value={to.pieces ?? c.pieces}
                onNumber={(v) => set({ pieces: v === undefined ? undefined : Math.round(v) })}
              />
              <Pick
                label={t`Cut edge`}
                value={to.wall ?? c.wall}
                choices={(['clean', 'brown', 'black'] as const).map(
                  (w) => [w, wallWords[w], <WallSample key={w} wall={w} />] as const,
                )}
                onPick={(wall) => set({ wall })}
              />
              <Pick
                label={t`Tear-out on the exit side`}
                value={to.splinters ?? c.splinters}
                choices={(['none', 'fuzz', 'splinters', 'torn'] as const).map(
                  (s) => [s, splinterWords[s], <EdgeSample key={s} splinters={s} />] as const,
                )}
                onPick={(splinters) => set({ splinters })}
              />
              <Pick
                label={t`Effort`}
                value={to.effort ?? c.effort}
                choices={Object.entries(effortWords) as [Effort, string][]}
                onPick={(effort) => set({ effort })}
              />
            </>
          )}
          <LineField label={t`Person`} value={to.by ?? e.by ?? ''} most={60} onText={(by) => set({ by })} />
          <LineField
            label={t`Note`}
            value={to.note ?? e.note ?? ''}
            most={500}
            onText={(note) => set({ note })}
          />
        </Box>
        {amend.error && <Trouble sx={{ mt: 2 }}>{amend.error.message}</Trouble>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Cancel`}</Button>
        <Button
          variant="contained"
          disabled={amend.isPending || Object.values(to).every((v) => v === undefined)}
          onClick={() => amend.mutate({ id: e.id, key: key.current, body: to }, { onSuccess: onClose })}
        >
          {t`Correct it`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
