/** A line to type in, with its label and what is wrong with it. The library's own comes with its lists, which the first page has no need of. */
import FormControl from '@mui/material/FormControl';
import FormHelperText from '@mui/material/FormHelperText';
import InputLabel from '@mui/material/InputLabel';
import OutlinedInput, { type OutlinedInputProps } from '@mui/material/OutlinedInput';
import { useId } from 'react';

interface Props extends Omit<OutlinedInputProps, 'id' | 'error' | 'size'> {
  label: string;
  error?: boolean;
  helperText?: string;
}

export function TextBox({ label, error = false, helperText, ...p }: Props) {
  const id = useId();
  return (
    <FormControl fullWidth size="small" error={error} variant="outlined">
      <InputLabel htmlFor={id}>{label}</InputLabel>
      <OutlinedInput
        {...p}
        id={id}
        label={label}
        autoComplete="off"
        aria-describedby={helperText === undefined ? undefined : `${id}-says`}
      />
      {helperText !== undefined && <FormHelperText id={`${id}-says`}>{helperText}</FormHelperText>}
    </FormControl>
  );
}
