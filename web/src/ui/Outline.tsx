/** A page before its data: its own shape in hairlines, so that nothing jumps when they come. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';

interface Props {
  rows: number;
  height: number; // of a row, px
  drawing?: boolean; // with a drawing beside the rows
}

const line = (width: string) => ({ height: 2, width, bgcolor: 'divider' });

export function Outline({ rows, height, drawing = false }: Props) {
  return (
    <Box
      role="status"
      aria-label={t`Loading`}
      sx={{
        display: 'grid',
        gridTemplateColumns: drawing ? { md: 'minmax(400px, 5fr) minmax(0, 7fr)' } : 'minmax(0,1fr)',
        gap: 3,
      }}
    >
      <Box sx={{ order: { xs: 2, md: 1 } }}>
        {Array.from({ length: rows }, (_, i) => (
          <Box
            key={i}
            sx={{
              height,
              borderTop: '1px solid',
              borderColor: 'divider',
              display: 'flex',
              flexDirection: 'column',
              justifyContent: 'center',
              gap: 1.5,
            }}
          >
            <Box sx={line(`${48 - ((i * 13) % 22)}%`)} />
            <Box sx={line('92%')} />
          </Box>
        ))}
      </Box>
      {drawing && (
        <Box
          sx={{
            order: { xs: 1, md: 2 },
            height: { xs: 420, md: 560 },
            border: '1px solid',
            borderColor: 'divider',
          }}
        />
      )}
    </Box>
  );
}
