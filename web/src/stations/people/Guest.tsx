/** What a saw doctor reads of one blade, at an address that opens nothing else. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useParams } from 'react-router';
import { useReport } from '../../api/people';
import { usePreferences } from '../../ui/preferences';
import { specOf } from '../../drawings/words';
import { Arriving } from '../../ui/Arriving';
import { useDates } from '../../ui/useDates';
import { SurveyArticle } from '../../ui/SurveyArticle';

export function Guest() {
  const { secret = '' } = useParams();
  const report = useReport(secret);
  const { units } = usePreferences();
  const { day } = useDates();
  const r = report.data;
  if (!r) return <Arriving title={t`A blade’s report`} of={[report]} rows={3} />;
  return (
    <Box
      component="main"
      sx={{ maxWidth: 900, mx: 'auto', p: 3, '@media print': { p: 0, maxWidth: 'none' } }}
    >
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          justifyContent: 'space-between',
          alignItems: 'center',
          gap: 1,
          mb: 2,
          '@media print': { display: 'none' },
        }}
      >
        <Box
          sx={{ color: 'text.secondary' }}
        >{t`From ${r.shop}. This link works until ${day(r.ends_at)}.`}</Box>
        <Button variant="outlined" onClick={() => window.print()}>{t`Print`}</Button>
      </Box>
      {r.survey ? (
        <SurveyArticle report={r.survey} blade={r.blade} />
      ) : (
        <>
          <Typography variant="h1">{r.blade.name}</Typography>
          <Box sx={{ color: 'text.secondary' }}>{specOf(r.blade, units)}</Box>
          <Box sx={{ mt: 2 }}>{t`This blade hasn't been inspected yet.`}</Box>
        </>
      )}
    </Box>
  );
}
