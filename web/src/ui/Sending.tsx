/** A file on its way to the server, and then being read there. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';

export function Sending({ name, share }: { name: string; share: number }) {
  return (
    <Box role="status" sx={{ my: 1 }}>
      {share < 1 ? t`Sending ${name}` : t`Checking the file…`}
      <LinearProgress
        variant={share < 1 ? 'determinate' : 'indeterminate'}
        value={100 * share}
        aria-label={t`Upload progress`}
        sx={{ mt: 0.5, height: 8 }}
      />
    </Box>
  );
}
