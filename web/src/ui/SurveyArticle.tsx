/** What a survey came to, as it is read in the shop and by a saw doctor. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Blade, SurveyReport } from '../api/types';
import { usePreferences } from './preferences';
import { SurveyView } from '../drawings/SurveyView';
import { specOf } from '../drawings/words';
import { Verdict } from './Verdict';
import { useDates } from './useDates';

const worthWords = { yes: t`Worth repairing`, no: t`Not worth repairing`, ask: t`Ask first` } as const;

interface Props {
  report: SurveyReport;
  blade: Blade;
  photo?: string; // its address
}

export function SurveyArticle({ report: r, blade, photo }: Props) {
  const { day } = useDates();
  const { units } = usePreferences();
  return (
    <Box component="article" aria-label={t`Inspection`}>
      <Typography variant="h1">{t`${r.blade_name}, inspected`}</Typography>
      <Box sx={{ color: 'text.secondary' }}>
        {specOf(blade, units)}. {day(r.at)}
        {r.by && `, ${t`by ${r.by}`}`}
      </Box>
      {r.stop && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', my: 1.5, fontWeight: 650 }}>
          <Verdict verdict="stop" />
          {t`Don't use this blade until it has been repaired and inspected.`}
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: photo ? '1fr 1fr' : '1fr' },
          gap: 2,
          my: 1.5,
        }}
      >
        <Box sx={{ height: 240, borderTop: '1px solid', borderBottom: '1px solid', borderColor: 'divider' }}>
          <SurveyView
            look={(r.survey.missing ?? 0) > 0 ? 'seat' : r.survey.crack !== 'none' ? 'crack' : 'tips'}
            survey={r.survey}
          />
        </Box>
        {photo && (
          <Box
            component="img"
            src={photo}
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
          <Typography variant="h2" sx={{ mt: 2 }}>{t`For the sharpening service`}</Typography>
          <Lines lines={r.to_doctor} />
        </>
      )}
      <Typography variant="h2" sx={{ mt: 2 }}>
        {worthWords[r.worth]}
      </Typography>
      <Typography>{r.worth_why}</Typography>
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
