/** What can be changed of a row: how many, its stage, what it is held to; slips taken back. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { useBlades } from '../../api/rack';
import type { JobRow, JobRowInput, JobStage, Saw } from '../../api/types';
import { LineField, NumberField, SelectField } from '../../ui/Fields';
import { Sure } from '../../ui/Sure';
import { stageOrder, stages } from '../../cut/jobWords';

interface Props {
  row: JobRow;
  saws: Saw[];
  busy: boolean;
  onTick: (made: number, spoilt: number) => void;
  onEdit: (part: Partial<JobRowInput> | null) => void;
  onClose: () => void;
}

const ANY = 'any';

export function RowDialog({ row: r, saws, busy, onTick, onEdit, onClose }: Props) {
  const blades = useBlades().data ?? [];
  const [name, setName] = useState(r.name);
  const [pieces, setPieces] = useState<number | undefined>(r.pieces);
  const [stage, setStage] = useState<JobStage>(r.stage);
  const [saw, setSaw] = useState(r.saw_id ?? ANY);
  const [blade, setBlade] = useState(r.blade_id ?? ANY);
  const whole = pieces !== undefined && Number.isInteger(pieces) && pieces >= 1 && pieces <= 9999;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>{r.name}</DialogTitle>
      <DialogContent>
        <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { sm: '1fr 1fr' }, pt: 1 }}>
          <LineField label={t`Name`} value={name} most={60} onText={setName} />
          <NumberField
            label={t`Pieces`}
            value={pieces}
            onNumber={setPieces}
            problem={whole ? undefined : t`A whole number, 1 to 9999.`}
          />
          <SelectField<JobStage>
            label={t`Stage`}
            value={stage}
            choices={[['by rule', stages['by rule']], ...stageOrder.map((s) => [s, stages[s]] as const)]}
            onChoose={setStage}
          />
          <SelectField
            label={t`Only on this saw`}
            value={saw}
            choices={[[ANY, t`any saw`], ...saws.map((s) => [s.id, s.name] as const)]}
            onChoose={setSaw}
          />
          <SelectField
            label={t`Only with this blade`}
            value={blade}
            choices={[[ANY, t`any blade`], ...blades.map((b) => [b.id, b.name] as const)]}
            onChoose={setBlade}
          />
        </Box>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
          <Button variant="outlined" onClick={() => onTick(0, 1)}>{t`One spoiled, one more`}</Button>
          <Button variant="outlined" disabled={r.made === 0} onClick={() => onTick(-1, 0)}>
            {t`Undo one`}
          </Button>
          <Sure
            color="error"
            asks={t`Delete ${r.name} from the list?`}
            goes={t`This deletes the row and its ticks. Logged cuts stay in the log.`}
            yes={t`Delete`}
            onYes={() => onEdit(null)}
          >
            {t`Delete row`}
          </Sure>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t`Cancel`}</Button>
        <Button
          variant="contained"
          disabled={!whole || name.trim() === '' || busy}
          onClick={() =>
            onEdit({
              name: name.trim(),
              pieces,
              stage,
              saw_id: saw === ANY ? undefined : saw,
              blade_id: blade === ANY ? undefined : blade,
            })
          }
        >
          {t`Save`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
