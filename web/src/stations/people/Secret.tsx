/** A field for what others should not read over a shoulder, in a way that keepers of passwords know. */
import TextField from '@mui/material/TextField';

interface Props {
  label: string;
  value: string;
  kind: 'current-password' | 'new-password' | 'username' | 'one-time-code';
  onText: (v: string) => void;
  problem?: string;
  hint?: string;
  pin?: boolean;
}

export function Secret({ label, value, kind, onText, problem, hint, pin }: Props) {
  return (
    <TextField
      label={label}
      value={value}
      fullWidth
      type={kind === 'username' || kind === 'one-time-code' ? 'text' : 'password'}
      autoComplete={pin ? 'off' : kind}
      error={problem !== undefined}
      helperText={problem ?? hint}
      onChange={(e) => onText(pin ? e.target.value.replace(/\D/g, '').slice(0, 8) : e.target.value)}
      slotProps={{
        htmlInput: { maxLength: 200, inputMode: pin ? 'numeric' : undefined, autoCapitalize: 'none' },
      }}
    />
  );
}

export const longEnough = (password: string) => [...password].length >= 10;
