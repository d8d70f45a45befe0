import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

function Note({ title, children }: { title: string; children: string }) {
  return (
    <Box component="main" sx={{ p: 4, maxWidth: 560 }}>
      <Typography variant="h1" gutterBottom>
        {title}
      </Typography>
      <Typography sx={{ mb: 2 }}>{children}</Typography>
      <Button component={Link} to="/" variant="outlined" reloadDocument>
        Back to Choose
      </Button>
    </Box>
  );
}

/** Shown where a page fails to draw. */
export const Broken = () => (
  <Note title="This page broke">
    Something in Corte’s page went wrong. What was logged is safe; reload, and tell whoever looks after Corte
    if it comes back.
  </Note>
);

/** Shown at an address that no station has. */
export const Nowhere = () => <Note title="Nothing here">There is no station at this address.</Note>;
