/** Cuts, readings and steps of washes that wait in this browser: how many, which, and why one was refused. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { forgetWaiting, type Waiting as Kept } from '../api/waiting';
import { testWords } from '../stations/truing/tests';
import { Popover } from '../ui/Floating';
import { Verdict } from '../ui/Verdict';
import { useDates } from '../ui/useDates';

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
        slotProps={{ paper: { role: 'dialog', 'aria-label': 'What waits' } }}
        anchorOrigin={{ vertical: 'top', horizontal: 'center' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      >
        <Box sx={{ p: 2, maxWidth: 420 }}>
          <Box sx={{ mb: 1 }}>
            Corte did not answer when these were made. They are sent, in this order, as soon as it does; keep
            this browser.
          </Box>
          <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
            {all.map((c) => (
              <li key={c.key}>
                {weekday(c.at)}, {c.read && `${testWords[c.read.test].title}, `}
                {c.blade}
                {c.refused && (
                  <Box sx={{ color: 'error.main' }}>
                    Refused: {c.refused}{' '}
                    <Button size="small" onClick={() => forgetWaiting(c.key)}>
                      Let it go
                    </Button>
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
  const what = all.every((c) => c.made)
    ? 'cut'
    : all.every((c) => c.read)
      ? 'session'
      : all.every((c) => c.wash)
        ? 'step'
        : 'thing';
  return all.length === 1 ? `1 ${what} waits` : `${all.length} ${what}s wait`;
}
