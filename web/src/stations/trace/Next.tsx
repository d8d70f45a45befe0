/** The next check of a trace: how it is done, where, and what came of it. */
import { t } from '@lingui/core/macro';
import { Worded } from '../../ui/Worded';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Trace as TraceOf, TraceCheck } from '../../api/types';
import { cutParams } from '../../cut/cut';

/** Where a check is done, if it is done somewhere else. */
function station(c: TraceCheck, it: TraceOf) {
  const at = `saw=${it.saw_id}${it.blade_id ? `&blade=${it.blade_id}` : ''}`;
  switch (c.record) {
    case 'washed':
      return it.blade_id && { to: `/care/wash?b=${it.blade_id}`, name: t`Clean it under Care` };
    case 'inspected':
      return { to: '/care', name: t`Inspect it under Care` };
    case 'heel':
    case 'fence':
    case 'runout':
    case 'gauge':
    case 'tilt':
    case 'clearance':
      return { to: `/align/${c.record}?${at}`, name: t`Measure it under Align` };
    default:
      if (c.leads === 'groove') return { to: `/groove?${cutParams(it.cut)}`, name: t`Fit it under Groove` };
      return c.leads === 'cut'
        ? { to: `/?${cutParams(it.cut, { blade: it.blade_id })}`, name: t`Set it under Cut` }
        : undefined;
  }
}

const answersOf = (c: TraceCheck): [string, string] =>
  c.kind === 'cut' || c.kind === 'care' || c.kind === 'right'
    ? [t`Better`, t`No better`]
    : [t`Found it`, t`All right`];

export function Next({
  trace: it,
  busy,
  onAnswer,
  onDone,
  onGiveUp,
}: {
  trace: TraceOf;
  busy: boolean;
  onAnswer: (check: string, a: 'found' | 'not' | 'could-not') => void;
  onDone: (cause: string) => void;
  onGiveUp: () => void;
}) {
  const next = it.next[0];
  const top = it.reasons[0];
  const shown = it.done.some((d) => d.answer === 'found');
  return (
    <Box
      component="section"
      aria-labelledby="next"
      sx={{
        border: '2px solid',
        borderColor: 'text.primary',
        p: 1.5,
        mb: 2,
        bgcolor: 'background.paper',
        '@media print': { display: 'none' },
      }}
    >
      <Typography id="next" variant="h2">
        {it.present.length === 0
          ? t`Tap the workpiece first`
          : next
            ? t`Next check`
            : t`Nothing left to check`}
      </Typography>
      {it.pending.includes('wash-blade') && (
        <Box sx={{ my: 0.5, fontWeight: 650 }}>
          <Trans>
            The blade was cleaned. Make the same cut under{' '}
            <Link to={`/run?${cutParams(it.cut, { blade: it.blade_id })}`}>Run</Link> and record whether it
            helped.
          </Trans>
        </Box>
      )}
      {it.present.length > 0 && next && (
        <Box>
          <Box sx={{ fontSize: 22, fontWeight: 700 }}>{next.label}</Box>
          <Box sx={{ mb: 1 }}>
            <Worded>{next.how}</Worded> {t`About ${next.minutes} minutes.`}{' '}
            {next.kind === 'cut'
              ? t`Make the same cut as before and change only this.`
              : t`Change one thing at a time.`}
          </Box>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
            <Doing check={next} trace={it} busy={busy} onAnswer={onAnswer} />
          </Box>
        </Box>
      )}
      {it.exhausted && (
        <Box sx={{ my: 1, fontSize: 17 }}>
          {t`You've made every check, and nothing stands out. Have a sharpening service or the maker's service look at blade and saw.`}
        </Box>
      )}
      {shown && top && (
        <Box sx={{ mt: 1.5, pt: 1, borderTop: '1px solid', borderColor: 'divider' }}>
          <Box>{t`Fix it, make the same test cut again, and record the result.`}</Box>
          <Button variant="contained" sx={{ mt: 0.5 }} disabled={busy} onClick={() => onDone(top.id)}>
            {t`Good. The cause was “${top.label.toLowerCase()}”`}
          </Button>
        </Box>
      )}
      <Button size="small" sx={{ mt: 1 }} disabled={busy} onClick={onGiveUp}>
        {t`Close without a cause`}
      </Button>
    </Box>
  );
}

export function Doing({
  check: c,
  trace: it,
  busy,
  onAnswer,
}: {
  check: TraceCheck;
  trace: TraceOf;
  busy: boolean;
  onAnswer: (check: string, a: 'found' | 'not' | 'could-not') => void;
}) {
  const to = station(c, it);
  const [yes, no] = answersOf(c);
  return (
    <>
      {to && (
        <Button component={Link} to={to.to} variant="contained">
          {to.name}
        </Button>
      )}
      <Button variant="outlined" disabled={busy} onClick={() => onAnswer(c.id, 'found')}>
        {yes}
      </Button>
      <Button variant="outlined" disabled={busy} onClick={() => onAnswer(c.id, 'not')}>
        {no}
      </Button>
      <Button disabled={busy} onClick={() => onAnswer(c.id, 'could-not')}>{t`Can't check`}</Button>
    </>
  );
}
