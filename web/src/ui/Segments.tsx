/** One of a few views, as a row of buttons that touch. */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';

interface Props<T extends string> {
  label: string;
  value: T;
  choices: { value: T; name: string }[];
  onChoose: (v: T) => void;
}

export function Segments<T extends string>({ label, value, choices, onChoose }: Props<T>) {
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'flex', border: '1.5px solid', borderColor: 'drawing.hair' }}
    >
      {choices.map((c) => (
        <ButtonBase
          key={c.value}
          aria-pressed={c.value === value}
          onClick={() => onChoose(c.value)}
          sx={{
            minHeight: { xs: 44, md: 32 },
            px: 1.5,
            fontSize: 15,
            fontWeight: 600,
            '& + &': { borderLeft: '1.5px solid', borderColor: 'drawing.hair' },
            '&[aria-pressed=true]': { bgcolor: 'text.primary', color: 'background.paper' },
            // Where the reader's colours stand for ours, the ground tells nothing.
            '@media (forced-colors: active)': {
              '&[aria-pressed=true]': { textDecoration: 'underline 3px', textUnderlineOffset: '0.3em' },
            },
          }}
        >
          {c.name}
        </ButtonBase>
      ))}
    </Box>
  );
}
