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
          ? t`Add your saw, then the blades you own. It takes two minutes.`
          : t`No blades yet. Add your first one.`}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        <Button variant="contained" component={Link} to="/start">{t`Set up my shop`}</Button>
        {missing === 'saw' && (
          <Button variant="outlined" component={Link} to="/saws/new">{t`Add saw`}</Button>
        )}
        <Button variant="outlined" component={Link} to="/blades/new">{t`Add blade`}</Button>
        <Button variant="outlined" component={Link} to="/blades/files">{t`Import a file`}</Button>
        {missing === 'saw' && (
          <Button variant="outlined" component="a" href={LOOK_ROUND}>{t`Explore the demo shop`}</Button>
        )}
      </Box>
    </Box>
  );
}
