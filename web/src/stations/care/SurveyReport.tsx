/** What a survey came to, on a page to print and send along with the blade. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link, useParams } from 'react-router';
import { api } from '../../api/place';
import { useSurvey } from '../../api/care';
import { useAddGuest } from '../../api/people';
import { useBlade } from '../../api/rack';
import { Trouble } from '../../ui/Notice';
import { Handed } from '../../ui/Handed';
import { SurveyArticle } from '../../ui/SurveyArticle';

export function SurveyReportPage() {
  const { id = '' } = useParams();
  const blade = useBlade(id);
  const report = useSurvey(id);
  const guest = useAddGuest();
  const r = report.data;
  const failed = report.error ?? blade.error;
  return (
    <Box
      component="main"
      sx={{ maxWidth: 900, mx: 'auto', p: 3, '@media print': { p: 0, maxWidth: 'none', fontSize: '11pt' } }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 2, flexWrap: 'wrap', '@media print': { display: 'none' } }}>
        <Button component={Link} to={`/blades/${id}`}>
          ‹ {blade.data?.name ?? t`The blade`}
        </Button>
        <Button variant="contained" onClick={() => window.print()}>{t`Print`}</Button>
        <Button component={Link} to={`/blades/${id}/survey`} variant="outlined">{t`Inspect again`}</Button>
        {!guest.data && (
          <Button
            variant="outlined"
            disabled={guest.isPending}
            onClick={() => guest.mutate({ id, name: t`Sharpening service`, days: 30 })}
          >
            {t`Link for the sharpening service`}
          </Button>
        )}
      </Box>
      {guest.data && (
        <Box sx={{ mb: 2, '@media print': { display: 'none' } }}>
          <Handed
            what={t`Anyone with this address can read this report for thirty days, and nothing else of your shop.`}
            path={guest.data.path}
            onDone={guest.reset}
          />
        </Box>
      )}
      {guest.error && <Trouble>{guest.error.message}</Trouble>}
      {failed && <Trouble>{failed.message}</Trouble>}
      {r && blade.data && (
        <SurveyArticle
          report={r}
          blade={blade.data}
          photo={
            blade.data.photo_at && `${api}/blades/${id}/photo?at=${encodeURIComponent(blade.data.photo_at)}`
          }
        />
      )}
    </Box>
  );
}
