/** What to do first where a shop has nothing yet: the way on, from wherever one is. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { LOOK_ROUND } from '../api/place';

interface Props {
  missing: 'saw' | 'blade';
}

export function FirstThings({ missing }: Props) {
  return (
    <Box role="status" sx={{ my: 2, maxWidth: 640 }}>
      <Box sx={{ fontSize: 18 }}>
        {missing === 'saw'
          ? t`This shop has no saw yet. Put in the one you stand at, then the blades that hang beside it.`
          : t`No blade hangs here yet. Put the first one on the rack.`}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        <Button variant="contained" component={Link} to="/start">{t`Begin here, in two minutes`}</Button>
        {missing === 'saw' && (
          <Button variant="outlined" component={Link} to="/rack/saws/new">{t`Put a saw in`}</Button>
        )}
        <Button variant="outlined" component={Link} to="/rack/new">{t`Add a blade`}</Button>
        <Button variant="outlined" component={Link} to="/rack/files">{t`Bring a rack from a file`}</Button>
        {missing === 'saw' && (
          <Button variant="outlined" component="a" href={LOOK_ROUND}>{t`Look round in the demo shop`}</Button>
        )}
      </Box>
    </Box>
  );
}
