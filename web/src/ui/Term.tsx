/** A word of the craft where it stands; a touch says what it means, with a drawing. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { lazy, Suspense, useState, type MouseEvent, type ReactNode } from 'react';
import type { TermId } from '../drawings/TermPicture';
import { Popover } from './Floating';

const Meaning = lazy(() => import('./Meaning').then((m) => ({ default: m.Meaning })));

interface Props {
  of: TermId;
  children: ReactNode;
  within?: boolean; // a sentence, whose lines it must not part
}

// Under a thumb it is as high as one. In a sentence the height is laid over the
// lines beside it and moves none of them; so only what runs on can do that.
const alone = {
  display: { xs: 'inline-flex', sm: 'inline' },
  alignItems: 'flex-end',
  minHeight: { xs: 44, sm: 0 },
  minWidth: { xs: 44, sm: 0 },
};
const inSentence = {
  display: 'inline',
  py: { xs: '13px', sm: 0 },
  px: { xs: '9px', sm: 0 },
  mx: { xs: '-9px', sm: 0 },
};

export function Term({ of, children, within = false }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <ButtonBase
        component={within ? 'span' : 'button'}
        aria-haspopup="dialog"
        onClick={(e: MouseEvent<HTMLElement>) => setAnchor(e.currentTarget)}
        sx={{
          ...(within ? inSentence : alone),
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
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`Meaning` } as object }}
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
