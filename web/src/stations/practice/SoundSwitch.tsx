/** Sound is off until somebody asks for it. */
import { t } from '@lingui/core/macro';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { Note } from './useNote';

export const SoundSwitch = ({ note }: { note: Note }) => (
  <FormControlLabel control={<Checkbox checked={note.on} onChange={note.toggle} />} label={t`Sound`} />
);
