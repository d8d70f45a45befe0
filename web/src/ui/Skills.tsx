/** A box for each skill of a drill, filled where it is known. */
import Box from '@mui/material/Box';

interface Props {
  known: number;
  of: number;
  small?: boolean;
}

export function Skills({ known, of, small = false }: Props) {
  return (
    <Box sx={{ display: 'flex', gap: small ? '3px' : 0.5 }} aria-hidden>
      {Array.from({ length: of }, (_, i) => (
        <Box
          key={i}
          sx={{
            width: small ? 8 : 18,
            height: small ? 16 : 10,
            border: '1.5px solid',
            borderColor: 'text.primary',
            bgcolor: i < known ? 'text.primary' : 'transparent',
          }}
        />
      ))}
    </Box>
  );
}
