/** A word of the craft where it stands; a touch says what it means, with a drawing. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import type { TermId } from '../drawings/TermPicture';
import { Popover } from './Floating';

const Meaning = lazy(() => import('./Meaning').then((m) => ({ default: m.Meaning })));

export function Term({ of, children }: { of: TermId; children: ReactNode }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <ButtonBase
        aria-haspopup="dialog"
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{
          // Under a thumb it is as high as one.
          display: { xs: 'inline-flex', sm: 'inline' },
          alignItems: 'flex-end',
          minHeight: { xs: 44, sm: 0 },
          minWidth: { xs: 44, sm: 0 },
          font: 'inherit',
          color: 'inherit',
          borderRadius: 0,
          textDecoration: 'underline dotted 1.5px',
          textUnderlineOffset: '0.2em',
          verticalAlign: 'baseline',
        }}
      >
        {children}
      </ButtonBase>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`What it means` } as object }}
      >
        <Box sx={{ p: 2, width: 300, maxWidth: '100%' }}>
          <Suspense fallback={null}>
            <Meaning of={of} />
          </Suspense>
        </Box>
      </Popover>
    </>
  );
}
