import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

function Note({ title, again, children }: { title: string; again?: boolean; children: string }) {
  return (
    <Box component="main" sx={{ p: 4, maxWidth: 560 }}>
      <Typography variant="h1" gutterBottom>
        {title}
      </Typography>
      <Typography sx={{ mb: 2 }}>{children}</Typography>
      <Box sx={{ display: 'flex', gap: 1 }}>
        {again && <Button variant="contained" onClick={() => location.reload()}>{t`Reload`}</Button>}
        <Button component={Link} to="/" variant="outlined" reloadDocument>{t`Go to Cut`}</Button>
      </Box>
    </Box>
  );
}

/** Shown where a page fails to draw. */
export const Broken = () => (
  <Note title={t`This page crashed`} again>
    {t`Something went wrong on this page. Your logged data is safe. Reload, and tell your administrator if it happens again.`}
  </Note>
);

/** Shown at an address that no station has. */
export const Nowhere = () => <Note title={t`Page not found`}>{t`There is no page at this address.`}</Note>;
