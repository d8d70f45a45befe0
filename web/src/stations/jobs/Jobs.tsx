/** Jobs: the lists of cuts that are under way, and those that are done. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { useJobs } from '../../api/jobs';
import { useSaws } from '../../api/rack';
import type { JobHead } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { Coming } from '../../ui/Arriving';
import { FirstThings } from '../../ui/FirstThings';
import { saidMinutes } from '../../ui/feed';
import { useDates } from '../../ui/useDates';

export function Jobs() {
  const jobs = useJobs();
  const saws = useSaws();
  const open = jobs.data?.filter((j) => !j.ended_at) ?? [];
  const over = jobs.data?.filter((j) => j.ended_at) ?? [];
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 2, mb: 1.5 }}>
        <Typography variant="h1" sx={{ flex: 1 }}>{t`Jobs`}</Typography>
        {saws.data?.length !== 0 && (
          <Button component={Link} to="/jobs/new" variant="contained" sx={{ minHeight: 48 }}>
            {t`New job`}
          </Button>
        )}
      </Box>
      {!jobs.data && <Coming of={[jobs]} rows={3} height={90} />}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {jobs.data?.length === 0 && saws.data?.length !== 0 && (
        <Box sx={{ maxWidth: 640, fontSize: 18, lineHeight: 1.45 }}>
          {t`A job is a list of cuts. Type it as you would write it on a scrap of board, or paste it from a spreadsheet. Corte plans it over your saws with few blade changes, and you tick it off at the saw.`}
        </Box>
      )}
      {open.map((j) => (
        <Strip key={j.id} job={j} />
      ))}
      {over.length > 0 && <Typography variant="h2" sx={{ mt: 3 }}>{t`Done`}</Typography>}
      {over.map((j) => (
        <Strip key={j.id} job={j} />
      ))}
    </Box>
  );
}

function Strip({ job: j }: { job: JobHead }) {
  const { day } = useDates();
  const share = j.pieces > 0 ? j.made / j.pieces : 0;
  return (
    <ButtonBase
      component={Link}
      to={`/jobs/${j.id}`}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: 'minmax(0, 1fr) minmax(180px, 30%)' },
        gap: { xs: 0.5, sm: 3 },
        alignItems: 'center',
        textAlign: 'left',
        width: '100%',
        py: 1.5,
        borderTop: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontFamily: cutFace, fontSize: 22, fontWeight: 620, overflowWrap: 'anywhere' }}>
          {j.name}
        </Box>
        <Box sx={{ color: 'text.secondary' }}>
          {plural(j.rows, { one: '# row', other: '# rows' })}, {t`started ${day(j.created_at)}`}
          {j.ended_at && `, ${t`done ${day(j.ended_at)}`}`}
        </Box>
      </Box>
      <Box>
        <Box sx={{ fontSize: 18, fontWeight: 650 }}>
          {t`${j.made} of ${j.pieces} made`}
          {j.left_min !== undefined && !j.ended_at && `, ${t`${saidMinutes(j.left_min)} of cutting left`}`}
        </Box>
        <Box
          aria-hidden
          sx={{
            mt: 0.5,
            height: 12,
            border: '1.5px solid',
            borderColor: 'text.primary',
            position: 'relative',
          }}
        >
          <Box
            sx={{
              position: 'absolute',
              inset: 0,
              right: 'auto',
              width: `${100 * share}%`,
              bgcolor: 'text.primary',
            }}
          />
        </Box>
      </Box>
    </ButtonBase>
  );
}
