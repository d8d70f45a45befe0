/** What a word of the craft means: its drawing, a sentence, and where it can be tried. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link as RouterLink } from 'react-router';
import type { WhyName } from '../api/types';
import { TermPicture, type TermId } from '../drawings/TermPicture';
import { terms } from './terms';

/** The drawing of Learn in which a word moves something. */
const tried: Record<TermId, WhyName> = {
  arc: 'arc',
  bite: 'arc',
  'burn-risk': 'heat',
  'feed-range': 'heat',
  heel: 'line',
  hook: 'grinds',
  kerf: 'grinds',
  pitch: 'heat',
  proud: 'arc',
  raker: 'grinds',
  room: 'gullets',
  'run-out': 'line',
  'side-clearance': 'line',
  'zero-clearance': 'backer',
};

export function Meaning({ of }: { of: TermId }) {
  return (
    <>
      <TermPicture term={of} />
      <Typography variant="h3" component="h2" sx={{ mt: 1 }}>
        {terms[of].name}
      </Typography>
      <Box sx={{ lineHeight: 1.35 }}>{terms[of].says}</Box>
      <Box
        component={RouterLink}
        to={`/practice/why/${tried[of]}`}
        aria-label={t`Try it: ${terms[of].name}`}
        sx={{
          display: 'inline-flex',
          alignItems: 'center',
          minHeight: { xs: 44, sm: 32 },
          color: 'primary.main',
        }}
      >{t`Try it`}</Box>
    </>
  );
}
