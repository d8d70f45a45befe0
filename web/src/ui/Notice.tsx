/** What the page has to say for itself: a failure with its way on, a caution, something done. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { Worded } from './Worded';

type Kind = 'trouble' | 'caution' | 'done' | 'said';

const marks: Record<Kind, string> = {
  trouble: 'M2 2H13L18 7V18H2ZM13 2V7H18', // a sheet with a corner torn
  caution: 'M10 2L19 18H1Z',
  done: 'M3 11L8 16L18 4',
  said: 'M2 4H18M2 10H18M2 16H12',
};

interface Props {
  kind: Kind;
  children: ReactNode;
  sx?: object; // of its place on the page
  onAgain?: () => void;
  action?: ReactNode;
}

export function Notice({ kind, children, sx, onAgain, action }: Props) {
  const color = kind === 'trouble' ? 'error.main' : 'text.primary';
  return (
    <Box
      role={kind === 'trouble' || kind === 'caution' ? 'alert' : 'status'}
      sx={{
        display: 'flex',
        alignItems: 'flex-start',
        flexWrap: 'wrap',
        gap: 1.25,
        px: 1.5,
        py: 1.25,
        border: '1.5px solid',
        borderColor: color,
        color,
        lineHeight: 1.4,
        ...sx,
      }}
    >
      <svg width={20} height={20} viewBox="0 0 20 20" aria-hidden focusable="false" style={{ flex: 'none' }}>
        <path d={marks[kind]} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
      </svg>
      <Box sx={{ flex: 1, minWidth: 180, overflowWrap: 'anywhere' }}>
        {typeof children === 'string' ? <Worded>{children}</Worded> : children}
      </Box>
      {action}
      {onAgain && <Button variant="outlined" color="inherit" onClick={onAgain}>{t`Try again`}</Button>}
    </Box>
  );
}

/** Something failed: why, and, where it can help, a way to ask again. */
export const Trouble = (p: Omit<Props, 'kind'>) => <Notice kind="trouble" {...p} />;
