/** What a word of the craft means: its drawing and a sentence. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { TermPicture, type TermId } from '../drawings/TermPicture';
import { terms } from './terms';

export function Meaning({ of }: { of: TermId }) {
  return (
    <>
      <TermPicture term={of} />
      <Typography variant="h3" component="h2" sx={{ mt: 1 }}>
        {terms[of].name}
      </Typography>
      <Box sx={{ lineHeight: 1.35 }}>{terms[of].says}</Box>
    </>
  );
}
