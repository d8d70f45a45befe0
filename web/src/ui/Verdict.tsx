/** One of three words with its shape; colour says nothing by itself. */
import { wordOf } from '../drawings/codeWords';
import Box from '@mui/material/Box';
import type { Verdict as Word } from '../api/types';

const shapes: Record<Word, string> = {
  clear: 'M8 1.500a6.500 6.500 0 1 1 0 13a6.500 6.500 0 1 1 0-13Z',
  caution: 'M8 1.500L15 14.500H1Z',
  stop: 'M5 1h6l4 4v6l-4 4H5l-4-4V5Z',
};

export function Verdict({ verdict, size = 16 }: { verdict: Word; size?: number }) {
  return (
    <Box
      component="span"
      sx={{ display: 'inline-flex', alignItems: 'center', gap: 0.75, fontWeight: 650, whiteSpace: 'nowrap' }}
    >
      <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden focusable="false">
        <path
          d={shapes[verdict]}
          fill={verdict === 'stop' ? 'currentColor' : 'none'}
          stroke="currentColor"
          strokeWidth={2}
          strokeLinejoin="round"
        />
      </svg>
      {wordOf(verdict)}
    </Box>
  );
}
