/** A secret that is shown this once, to be handed on. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { addressOf } from '../api/people';

interface Props {
  what: string;
  path?: string; // of an address of this server
  text?: string; // or a text of its own
  onDone: () => void;
}

export function Handed({ what, path, text, onDone }: Props) {
  const [copied, setCopied] = useState(false);
  const all = text ?? addressOf(path ?? '');
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      <Box>{what}</Box>
      <Box
        component="output"
        aria-label={t`Pass this on`}
        sx={{
          fontSize: 17,
          fontWeight: 650,
          overflowWrap: 'anywhere',
          whiteSpace: 'pre-wrap',
          userSelect: 'all',
          border: '1.5px dashed',
          borderColor: 'drawing.hair',
          p: 1.25,
        }}
      >
        {all}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <Button
          variant="outlined"
          onClick={() =>
            void navigator.clipboard?.writeText(all).then(
              () => setCopied(true),
              () => undefined,
            )
          }
        >
          {t`Duplicate`}
        </Button>
        <Button variant="contained" onClick={onDone}>{t`Done. It won't be shown again`}</Button>
        <Box role="status">{copied && t`Copied.`}</Box>
      </Box>
    </Box>
  );
}
