/** How the work is held and guided, and where supports carry it while it is cut in two. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Advice, Plan, Saw, Units } from '../../api/types';
import { Verdict } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';
import { Supports } from './Supports';

const topics: Record<Advice['topic'], string> = {
  fence: t`Guide`,
  stop: t`To length`,
  sled: t`Small piece`,
  push: t`Hands`,
  end: t`End edge`,
  support: t`Support`,
  passes: t`Passes`,
  stock: t`Stock`,
};

export function Hold({ plan, saw, units }: { plan: Plan; saw: Saw; units: Units }) {
  return (
    <Box sx={{ py: 1 }}>
      <Advices hold={plan.hold} />
      {(saw.kind === 'circular' || plan.cut.length_mm > 1500) && (
        <>
          <Typography variant="h3" component="h2" sx={{ mt: 1.5 }}>{t`Supports`}</Typography>
          <Supports cut={plan.cut} units={units} />
        </>
      )}
    </Box>
  );
}

export function Advices({ hold }: { hold: Advice[] }) {
  return (
    <Box
      component="dl"
      aria-label={t`How to hold it`}
      sx={{
        m: 0,
        display: 'grid',
        gridTemplateColumns: 'auto 1fr',
        columnGap: 2,
        rowGap: 0.5,
        fontSize: 15.5,
      }}
    >
      {hold.map((a) => (
        <Box key={a.text} sx={{ display: 'contents' }}>
          <Box component="dt" sx={{ color: 'text.secondary' }}>
            {topics[a.topic]}
          </Box>
          <Box component="dd" sx={{ m: 0, lineHeight: 1.35, fontWeight: a.halt ? 650 : 400 }}>
            {a.halt && (
              <>
                <Verdict verdict="stop" size={13} />{' '}
              </>
            )}
            <Worded>{a.text}</Worded>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
