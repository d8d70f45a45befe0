/** Said over the place bar in the demo shop that is looked at from another: where one is, and the way back. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

export function LookingRound() {
  return (
    <Box
      component="section"
      aria-label={t`You are here`}
      sx={{
        px: { xs: 2, md: 3 },
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 2,
        borderTop: '2px dashed',
        borderColor: 'text.primary',
        bgcolor: 'background.paper',
        lineHeight: 1.3,
        '@media print': { display: 'none' },
      }}
    >
      <Box sx={{ flex: '1 1 200px' }}>
        <Trans>
          <b>Demo shop.</b> Nothing you do here changes your own shop.
        </Trans>
      </Box>
      <Button component="a" href="/start">{t`Back to my shop`}</Button>
    </Box>
  );
}
