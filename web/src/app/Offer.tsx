/** A line above the place bar that offers something once. */
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

export function Offer({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      role="region"
      aria-label={label}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 1,
        px: { xs: 2, md: 3 },
        py: 0.5,
        borderTop: '1px solid',
        borderColor: 'divider',
        bgcolor: 'background.paper',
        '@media print': { display: 'none' },
      }}
    >
      {children}
    </Box>
  );
}
