/** The list that a word of a sentence opens. */
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';

export interface Choice<T extends string> {
  value: T;
  name: string;
  disabled?: boolean;
}

interface Props<T extends string> {
  label: string;
  value: T;
  choices: Choice<T>[];
  anchorEl: HTMLElement | null;
  onClose: () => void;
  onChoose: (v: T) => void;
}

export function ChoiceMenu<T extends string>({
  label,
  value,
  choices,
  anchorEl,
  onClose,
  onChoose,
}: Props<T>) {
  return (
    <Menu
      anchorEl={anchorEl}
      open={anchorEl !== null}
      onClose={onClose}
      slotProps={{ list: { 'aria-label': label, dense: true }, paper: { sx: { maxHeight: 420 } } }}
    >
      {choices.map((c) => (
        <MenuItem
          key={c.value}
          selected={c.value === value}
          disabled={c.disabled}
          onClick={() => {
            onClose();
            onChoose(c.value);
          }}
        >
          {c.name}
        </MenuItem>
      ))}
    </Menu>
  );
}
