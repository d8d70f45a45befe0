/** What a survey came to, on a page to print and send along with the blade. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useParams } from 'react-router';
import { api } from '../../api/place';
import { useSurvey } from '../../api/care';
import { useBlade } from '../../api/rack';
import { usePreferences } from '../../app/preferences';
import { SurveyView } from '../../drawings/SurveyView';
import { specOf } from '../../drawings/words';
import { Verdict } from '../../ui/Verdict';
import { useDates } from '../../ui/useDates';
import { Trouble } from '../../ui/Notice';

const worthWords = { yes: t`Worth mending`, no: t`Not worth mending`, ask: t`Ask first` } as const;

export function SurveyReportPage() {
  const { day } = useDates();
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const blade = useBlade(id);
  const report = useSurvey(id);
  const r = report.data;
  const failed = report.error ?? blade.error;
  return (
    <Box
      component="main"
      sx={{ maxWidth: 900, mx: 'auto', p: 3, '@media print': { p: 0, maxWidth: 'none', fontSize: '11pt' } }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 2, flexWrap: 'wrap', '@media print': { display: 'none' } }}>
        <Button component={Link} to={`/rack/${id}`}>
          ‹ {blade.data?.name ?? t`The blade`}
        </Button>
        <Button variant="contained" onClick={() => window.print()}>{t`Print`}</Button>
        <Button component={Link} to={`/rack/${id}/survey`} variant="outlined">{t`Look again`}</Button>
      </Box>
      {failed && <Trouble>{failed.message}</Trouble>}
      {r && blade.data && (
        <Box component="article" aria-label={t`Survey`}>
          <Typography variant="h1">{t`${r.blade_name}, looked over`}</Typography>
          <Box sx={{ color: 'text.secondary' }}>
            {specOf(blade.data, units)}. {day(r.at)}
            {r.by && t`, by ${r.by}`}
          </Box>
          {r.stop && (
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', my: 1.5, fontWeight: 650 }}>
              <Verdict verdict="stop" />
              {t`It is off every saw until somebody has mended it and somebody has inspected it.`}
            </Box>
          )}
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: blade.data.photo_at ? '1fr 1fr' : '1fr' },
              gap: 2,
              my: 1.5,
            }}
          >
            <Box
              sx={{ height: 240, borderTop: '1px solid', borderBottom: '1px solid', borderColor: 'divider' }}
            >
              <SurveyView
                look={(r.survey.missing ?? 0) > 0 ? 'seat' : r.survey.crack !== 'none' ? 'crack' : 'tips'}
                survey={r.survey}
              />
            </Box>
            {blade.data.photo_at && (
              <Box
                component="img"
                src={`${api}/blades/${id}/photo?at=${encodeURIComponent(blade.data.photo_at)}`}
                alt={t`Photo of ${r.blade_name}`}
                sx={{ width: '100%', height: 240, objectFit: 'cover' }}
              />
            )}
          </Box>
          <Typography variant="h2">{t`Found`}</Typography>
          <Lines lines={r.found} />
          {r.note && <Typography>{r.note}</Typography>}
          {r.to_doctor.length > 0 && (
            <>
              <Typography variant="h2" sx={{ mt: 2 }}>{t`To the saw doctor`}</Typography>
              <Lines lines={r.to_doctor} />
            </>
          )}
          <Typography variant="h2" sx={{ mt: 2 }}>
            {worthWords[r.worth]}
          </Typography>
          <Typography>{r.worth_why}</Typography>
        </Box>
      )}
    </Box>
  );
}

function Lines({ lines }: { lines: string[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
      {lines.map((l) => (
        <li key={l}>{l}</li>
      ))}
    </Box>
  );
}
