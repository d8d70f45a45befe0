/** Said over the place bar while the server does not answer: how old what is shown is. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import { useShelf } from '../api/choose';
import { awayNow, waitForServer, watchAway } from '../api/fallback';
import { useDates } from '../ui/useDates';

export function Offline() {
  const cache = useQueryClient();
  const away = useSyncExternalStore(watchAway, awayNow);
  const { moment } = useDates();
  useShelf();
  useEffect(() => waitForServer(cache), [cache]);
  const from = away ? moment(away.from) : '';
  const shown = away?.here
    ? t`Worked out on this device with data from ${from}.`
    : t`Showing data from ${from}.`;
  return (
    <Box role="status">
      {away && (
        <Box
          sx={{
            px: { xs: 2, md: 3 },
            py: 0.75,
            borderTop: '2px dashed',
            borderColor: 'text.primary',
            bgcolor: 'background.paper',
            lineHeight: 1.3,
            '@media print': { display: 'none' },
          }}
        >
          <Trans>
            <b>You're offline.</b> {shown} Anything you log is saved here and sent when you're back online.
          </Trans>
        </Box>
      )}
    </Box>
  );
}
