/** Cuts, readings and steps of washes that wait in this browser: how many, which, and why one was refused. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { forgetWaiting, type Waiting as Kept } from '../api/queue';
import { testWords } from '../ui/truingTests';
import { Popover } from '../ui/Floating';
import { Verdict } from '../ui/Verdict';
import { useDates } from '../ui/useDates';
import { Sure } from '../ui/Sure';

export function Waiting({ all }: { all: Kept[] }) {
  const { weekday } = useDates();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <ButtonBase
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{
          px: 1.5,
          gap: 0.75,
          fontSize: 15,
          fontWeight: 650,
          minHeight: 44,
          borderTop: { xs: '1px solid', sm: 0 },
          borderLeft: { sm: '1px solid' },
          borderColor: 'divider',
        }}
      >
        <Verdict verdict="caution" size={13} />
        {waits(all)}
      </ButtonBase>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`Waiting to send` } }}
        anchorOrigin={{ vertical: 'top', horizontal: 'center' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      >
        <Box sx={{ p: 2, maxWidth: 420 }}>
          <Box sx={{ mb: 1 }}>
            {t`You made these while offline. They are saved on this device and sent in this order, in your name, once you're online and signed in.`}
          </Box>
          <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
            {all.map((c) => (
              <li key={c.key}>
                {weekday(c.at)}, {c.read && `${testWords[c.read.test].title}, `}
                {c.blade}
                {(c.refused ?? c.trouble) && (
                  <Box sx={c.refused ? { color: 'error.main' } : {}}>
                    {c.refused ?? c.trouble}{' '}
                    <Sure
                      size="small"
                      asks={t`Discard it?`}
                      goes={t`It won't be sent, and it is saved nowhere else.`}
                      yes={t`Discard`}
                      onYes={() => void forgetWaiting(c.key)}
                    >
                      {t`Discard`}
                    </Sure>
                  </Box>
                )}
              </li>
            ))}
          </Box>
        </Box>
      </Popover>
    </>
  );
}

function waits(all: Kept[]): string {
  const n = all.length;
  if (all.every((c) => c.made))
    return plural(n, { one: '# cut waiting to send', other: '# cuts waiting to send' });
  if (all.every((c) => c.read))
    return plural(n, { one: '# session waiting to send', other: '# sessions waiting to send' });
  if (all.every((c) => c.wash))
    return plural(n, { one: '# step waiting to send', other: '# steps waiting to send' });
  if (all.every((c) => c.tick))
    return plural(n, { one: '# tick waiting to send', other: '# ticks waiting to send' });
  return plural(n, { one: '# entry waiting to send', other: '# entries waiting to send' });
}
