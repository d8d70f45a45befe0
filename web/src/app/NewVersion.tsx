/** Keeps the pages in the browser, and says when there are newer ones. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { registerSW } from 'virtual:pwa-register';

export function NewVersion() {
  const [take, setTake] = useState<() => void>();
  useEffect(() => {
    const update = registerSW({ onNeedRefresh: () => setTake(() => () => void update(true)) });
  }, []);
  return (
    <Box role="status">
      {take && (
        <Box
          sx={{
            px: { xs: 2, md: 3 },
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            borderTop: '1px solid',
            borderColor: 'divider',
            bgcolor: 'background.paper',
            '@media print': { display: 'none' },
          }}
        >
          {t`A new version of Corte is ready.`}
          <Button onClick={take}>{t`Reload`}</Button>
        </Box>
      )}
    </Box>
  );
}
