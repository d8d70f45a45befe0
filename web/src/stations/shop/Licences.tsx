/** What Corte is made of: each part with its licence, and its text to be opened. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useLicences } from '../../api/shop';
import { Arriving } from '../../ui/Arriving';

export function Licences() {
  const licences = useLicences();
  const all = licences.data;
  if (!all) return <Arriving title={t`Licenses`} of={[licences]} rows={6} height={40} />;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Typography variant="h1">{t`Licenses`}</Typography>
      <Box sx={{ my: 1, maxWidth: 760 }}>
        {t`Corte is licensed under Apache-2.0. It includes ${plural(all.length, { one: '# part', other: '# parts' })} made by others, with thanks.`}
      </Box>
      <Box sx={{ columnWidth: 360, columnGap: '32px' }}>
        {all.map((l) => (
          <Box
            component="details"
            key={`${l.name} ${l.version}`}
            sx={{ borderTop: '1px solid', borderColor: 'divider', breakInside: 'avoid-column' }}
          >
            <Box component="summary" sx={{ py: 1.25, cursor: 'pointer', overflowWrap: 'anywhere' }}>
              <b>{l.name}</b> {l.version}{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {l.licence}
              </Box>
            </Box>
            <Box component="pre" sx={{ whiteSpace: 'pre-wrap', fontSize: 13.5, m: 0, pb: 1.5 }}>
              {l.text}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
