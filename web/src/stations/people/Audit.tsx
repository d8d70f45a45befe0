/** Who signed in, changed roles, took data out or struck rows: the last of it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useAudit } from '../../api/people';
import { Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';

export function Audit() {
  const audit = useAudit(true);
  const { moment } = useDates();
  return (
    <Box component="section" aria-labelledby="audit">
      <Typography id="audit" variant="h2">{t`Recent changes`}</Typography>
      {audit.error && <Trouble sx={{ my: 1 }}>{audit.error.message}</Trouble>}
      {audit.data?.length === 0 && <Box sx={{ my: 1 }}>{t`No changes to people or access yet.`}</Box>}
      <Box
        component="ol"
        tabIndex={0}
        aria-label={t`Changes, newest first`}
        sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 420, overflowY: 'auto' }}
      >
        {audit.data?.map((a) => (
          <Box component="li" key={a.id} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 0.75 }}>
            <b>{a.who}</b> {a.what}
            {a.about && `: ${a.about}`}
            <Box sx={{ color: 'text.secondary', fontSize: 14 }}>
              {moment(a.at)}
              {a.address && `, ${t`from ${a.address}`}`}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
