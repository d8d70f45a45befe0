/** What is done with one thumb. On a phone it stays at the foot of the page, over the place bar. */
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

interface Props {
  said?: ReactNode; // a line over it: what the last action came to
  children: ReactNode;
}

export function ActionBar({ said, children }: Props) {
  return (
    <Box
      sx={{
        position: 'sticky',
        bottom: 0,
        zIndex: 2,
        mx: -2,
        px: 0.5,
        py: 0.5,
        bgcolor: 'background.default',
        borderTop: '1px solid',
        borderColor: 'text.primary',
      }}
    >
      {said && <Box sx={{ px: 1.5, lineHeight: 1.3 }}>{said}</Box>}
      <Box sx={{ minHeight: 50, display: 'flex', alignItems: 'center' }}>{children}</Box>
    </Box>
  );
}
