/** Every word of the craft that Corte uses, with its drawing. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { TermId } from '../../drawings/TermPicture';
import { Meaning } from '../../ui/Meaning';
import { terms } from '../../ui/terms';

export function Words() {
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Typography variant="h1">{t`Glossary`}</Typography>
      <Box
        component="ul"
        sx={{
          listStyle: 'none',
          m: 0,
          mt: 2,
          p: 0,
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(250px, 1fr))',
          columnGap: 4,
          rowGap: 3,
        }}
      >
        {(Object.keys(terms) as TermId[]).map((it) => (
          <Box component="li" key={it} sx={{ borderTop: '1px solid', borderColor: 'divider', pt: 1.5 }}>
            <Meaning of={it} />
          </Box>
        ))}
      </Box>
    </Box>
  );
}
