/** Fields of a form: a number, a choice, a yes or no, a line of text. Lengths are LengthField's. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { typedNumber } from '../measure/format';

interface NumberProps {
  label: string;
  value: number | undefined;
  onNumber: (v: number | undefined) => void;
  unit?: string;
  problem?: string;
  hint?: string;
}

/** A number as it is typed; what is no number yet counts as nothing, and is told when the field is left. */
export function NumberField({ label, value, onNumber, unit, problem, hint }: NumberProps) {
  const [text, setText] = useState<string | null>(null);
  const [left, setLeft] = useState(false);
  const bad = text !== null && text.trim() !== '' && !Number.isFinite(typedNumber(text));
  return (
    <TextField
      label={unit ? `${label}, ${unit}` : label}
      value={text ?? (value === undefined ? '' : String(value))}
      fullWidth
      size="small"
      autoComplete="off"
      error={(bad && left) || problem !== undefined}
      helperText={bad && left ? t`Not a clear number. Write 7000 or 7.5.` : (problem ?? hint)}
      onChange={(e) => {
        setText(e.target.value);
        setLeft(false);
        const v = typedNumber(e.target.value);
        onNumber(e.target.value.trim() !== '' && Number.isFinite(v) ? v : undefined);
      }}
      onBlur={() => {
        if (bad) setLeft(true);
        else setText(null);
      }}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
    />
  );
}

interface SelectProps<T extends string> {
  label: string;
  value: T | '';
  choices: readonly (readonly [T, string])[];
  onChoose: (v: T) => void;
  problem?: string;
}

export function SelectField<T extends string>({ label, value, choices, onChoose, problem }: SelectProps<T>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      fullWidth
      size="small"
      error={problem !== undefined}
      helperText={problem}
      onChange={(e) => onChoose(e.target.value as T)}
      // A choice that stands for nothing chosen is shown like any other.
      slotProps={
        choices.some(([v]) => v === '')
          ? { select: { displayEmpty: true }, inputLabel: { shrink: true } }
          : undefined
      }
    >
      {choices.map(([v, name]) => (
        <MenuItem key={v} value={v}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface TextProps {
  label: string;
  value: string;
  onText: (v: string) => void;
  problem?: string;
  hint?: string;
  rows?: number;
  most?: number;
}

export function LineField({ label, value, onText, problem, hint, rows, most }: TextProps) {
  return (
    <TextField
      label={label}
      value={value}
      fullWidth
      size="small"
      autoComplete="off"
      multiline={rows !== undefined}
      minRows={rows}
      error={problem !== undefined}
      helperText={problem ?? hint}
      onChange={(e) => onText(e.target.value)}
      slotProps={{ htmlInput: { maxLength: most } }}
    />
  );
}

export function CheckField({
  label,
  value,
  onCheck,
}: {
  label: string;
  value: boolean;
  onCheck: (v: boolean) => void;
}) {
  return (
    <FormControlLabel
      control={<Checkbox checked={value} onChange={(e) => onCheck(e.target.checked)} />}
      label={label}
    />
  );
}

/** Fields that belong together, in as many columns as fit. */
export function Group({ name, children, hint }: { name: string; hint?: string; children: ReactNode }) {
  return (
    <Box
      component="fieldset"
      sx={{ border: 0, borderTop: '1px solid', borderColor: 'divider', m: 0, p: 0, pb: 2 }}
    >
      <Typography component="legend" variant="h3" sx={{ pr: 1.5 }}>
        {name}
      </Typography>
      {hint && <Box sx={{ fontSize: 14.5, color: 'text.secondary', mb: 1 }}>{hint}</Box>}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 168px), 1fr))',
          columnGap: 1.5,
          rowGap: 1.75,
          alignItems: 'start',
          pt: 1,
        }}
      >
        {children}
      </Box>
    </Box>
  );
}
