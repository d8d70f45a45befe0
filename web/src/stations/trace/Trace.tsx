/** A fault being traced: what is seen, the reasons that it can have, and the next check, until a test cut proves the fix. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useNavigate, useParams } from 'react-router';
import { useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import { useDropTrace, useEndTrace, useSetEvidence, useTrace, useTraceWords } from '../../api/trace';
import type { Trace as TraceOf, TraceEvidence, TraceReason } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { cutSaid, upper } from '../../drawings/words';
import { percent } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';
import { Doing, Next } from './Next';
import { Signs } from './Signs';
import { useDates } from '../../ui/useDates';
import { Notice, Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Worded } from '../../ui/Worded';

export function Trace() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const trace = useTrace(id);
  const words = useTraceWords();
  const saws = useSaws();
  const materials = useMaterials();
  const set = useSetEvidence();
  const end = useEndTrace();
  const drop = useDropTrace();
  const go = useNavigate();
  const it = trace.data;
  const saw = saws.data?.find((s) => s.id === it?.saw_id);
  const failed = trace.error ?? set.error ?? end.error ?? drop.error;
  const busy = set.isPending || end.isPending || drop.isPending;
  const typed = (it?.done ?? []).filter((d) => d.from_log === '');
  const write = (part: Partial<TraceEvidence>) =>
    it &&
    set.mutate({
      id,
      version: it.version,
      body: {
        present: it.present,
        absent: it.absent,
        answers: Object.fromEntries(typed.map((d) => [d.id, d.answer])),
        ...part,
      },
    });
  const answer = (check: string, a: 'found' | 'not' | 'could-not' | null) => {
    const answers = Object.fromEntries(typed.filter((d) => d.id !== check).map((d) => [d.id, d.answer]));
    write({ answers: a ? { ...answers, [check]: a } : answers });
  };
  const sign = (s: string, to: 'there' | 'not' | null) =>
    it &&
    write({
      present: to === 'there' ? [...it.present.filter((x) => x !== s), s] : it.present.filter((x) => x !== s),
      absent: to === 'not' ? [...it.absent.filter((x) => x !== s), s] : it.absent.filter((x) => x !== s),
    });
  const ended = it?.ended_at !== undefined;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          flexWrap: 'wrap',
          '@media print': { '& a, & button': { display: 'none' } },
        }}
      >
        <Button component={Link} to="/diagnose" size="small" sx={{ ml: -0.75 }}>{t`‹ Diagnose`}</Button>
        <Typography variant="h1" sx={{ flex: 1, minWidth: 200 }}>
          {ended ? t`A diagnosed fault` : t`Diagnosis`}
        </Typography>
        <Button size="small" onClick={() => window.print()}>{t`Print a report`}</Button>
        {it && !ended && (
          <Sure
            size="small"
            color="error"
            disabled={busy}
            asks={t`Discard this diagnosis?`}
            goes={t`What you noted and checked so far isn't saved.`}
            yes={t`Discard`}
            onYes={() => drop.mutate(id, { onSuccess: () => void go('/diagnose') })}
          >
            {t`Discard`}
          </Sure>
        )}
      </Box>
      {it && saw && (
        <Box sx={{ fontFamily: cutFace, fontSize: 18 }}>
          {cutSaid(
            it.cut,
            saw,
            materials.data?.find((m) => m.id === it.cut.material),
            units,
          )}
          {it.blade_name && ` ${t`Blade: ${it.blade_name}.`}`}
        </Box>
      )}
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {it?.stop && !ended && (
        <Box
          role="alert"
          sx={{
            border: '3px solid',
            borderColor: 'text.primary',
            bgcolor: 'background.paper',
            p: 1.5,
            my: 1,
            display: 'flex',
            gap: 1.5,
            alignItems: 'baseline',
          }}
        >
          <Box sx={{ fontSize: 22 }}>
            <Verdict verdict="stop" size={22} />
          </Box>
          <Box sx={{ fontSize: 18 }}>
            <Trans>
              <b>No test cut.</b> Disconnect the power. The likely causes can throw the work or break a blade.
              Look, measure and fix first, and follow the saw's manual. If in doubt, ask a trained person.
            </Trans>
          </Box>
        </Box>
      )}
      {it && words.data && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 5fr) minmax(0, 7fr)' },
            columnGap: 5,
            rowGap: 2,
            mt: 1,
            '@media print': { display: 'block', fontSize: '10.5pt' },
          }}
        >
          <Box sx={{ minWidth: 0, '@media print': { display: 'none' } }}>
            <Signs
              saw={it.saw_kind}
              groove={it.cut.form !== undefined && it.cut.form !== 'through'}
              signs={words.data.signs}
              present={it.present}
              absent={it.absent}
              ended={ended || busy}
              onSign={sign}
            />
          </Box>
          <Box sx={{ minWidth: 0, order: { xs: it.present.length > 0 ? -1 : 0, md: 0 } }}>
            <Seen trace={it} words={words.data.signs} />
            {!ended && (
              <Next
                trace={it}
                busy={busy}
                onAnswer={answer}
                onDone={(cause) => end.mutate({ id, version: it.version, cause, fixed: true })}
                onGiveUp={() => end.mutate({ id, version: it.version, fixed: false })}
              />
            )}
            {ended && (
              <Notice kind={it.fixed ? 'done' : 'caution'} sx={{ mb: 1.5 }}>
                {it.fixed ? t`Cause: ${it.cause}. A good test cut proved it.` : t`No cause was proved.`}
              </Notice>
            )}
            <Reasons reasons={it.reasons} />
            <More trace={it} busy={busy || ended} onAnswer={answer} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** In print there is no drawing to read the signs from. */
function Seen({ trace: it, words }: { trace: TraceOf; words: { id: string; label: string }[] }) {
  const label = (id: string) => words.find((w) => w.id === id)?.label ?? id;
  return (
    <Box sx={{ mb: 1.5 }}>
      <b>{t`Seen:`}</b> {it.present.map(label).join(', ') || t`nothing yet`}.
      {it.absent.length > 0 && (
        <>
          {' '}
          <b>{t`Not:`}</b> {it.absent.map(label).join(', ').toLowerCase()}.
        </>
      )}
      {it.doubts.map((d) => (
        <Box key={d} sx={{ display: 'flex', gap: 1, alignItems: 'baseline', mt: 0.5 }}>
          <Verdict verdict="caution" size={13} />
          <span>{d}.</span>
        </Box>
      ))}
    </Box>
  );
}

function Reasons({ reasons }: { reasons: TraceReason[] }) {
  return (
    <Box component="section" aria-labelledby="reasons">
      <Typography id="reasons" variant="h2">{t`Likely causes`}</Typography>
      <Box component="ol" aria-label={t`Likely causes`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {reasons
          .filter((r, i) => i < 3 || r.share >= 0.05)
          .map((r) => (
            <Box component="li" key={r.id} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 0.75 }}>
              <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
                <Box sx={{ fontWeight: 700, fontSize: 17, flex: 1, minWidth: 0 }}>
                  <Worded>{r.label}</Worded>
                  {r.hazard && (
                    <Box component="span" sx={{ ml: 1, fontSize: 14 }}>
                      <Verdict verdict="stop" size={12} />
                    </Box>
                  )}
                </Box>
                <Box sx={{ fontWeight: 650 }}>{percent(r.share)}</Box>
              </Box>
              <Box aria-hidden sx={{ height: 7, border: '1px solid', borderColor: 'drawing.hair', my: 0.5 }}>
                <Box
                  sx={{ height: '100%', bgcolor: 'text.primary' }}
                  style={{ width: `${100 * r.share}%` }}
                />
              </Box>
              <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>
                {r.for.length > 0 && <>+ {r.for.join(', ').toLowerCase()} </>}
                {r.against.length > 0 && <>− {r.against.join(', ').toLowerCase()} </>}
              </Box>
              {r.share >= 0.25 && (
                <Box sx={{ fontSize: 15 }}>
                  <Worded>{t`To fix it: ${r.remedy}`}</Worded>
                </Box>
              )}
            </Box>
          ))}
      </Box>
    </Box>
  );
}

const said = { found: t`showed it`, not: t`did not show it`, 'could-not': t`could not be done` } as const;

/** What was done, what else could be, what Corte knew, the piece, and what was before. */
function More({
  trace: it,
  busy,
  onAnswer,
}: {
  trace: TraceOf;
  busy: boolean;
  onAnswer: (check: string, a: 'found' | 'not' | 'could-not' | null) => void;
}) {
  const { day } = useDates();
  return (
    <Box sx={{ mt: 2, display: 'grid', gap: 2 }}>
      {it.done.length > 0 && (
        <Box component="section" aria-label={t`Checks done`}>
          <Typography variant="h3" component="h2">{t`Done`}</Typography>
          {it.done.map((d) => (
            <Box key={d.id} sx={{ display: 'flex', gap: 1, alignItems: 'baseline', flexWrap: 'wrap' }}>
              <span>
                {d.label}: <b>{said[d.answer]}</b>
                {d.from_log && `, ${d.from_log}`}
              </span>
              {!d.from_log && !busy && (
                <Button
                  size="small"
                  sx={{ minHeight: { xs: 44, md: 26 }, py: 0 }}
                  onClick={() => onAnswer(d.id, null)}
                  aria-label={t`Undo: ${d.label}`}
                >
                  {t`undo`}
                </Button>
              )}
            </Box>
          ))}
        </Box>
      )}
      {it.next.length > 1 && !busy && it.present.length > 0 && (
        <Box component="details" sx={{ '@media print': { display: 'none' } }}>
          <Box
            component="summary"
            sx={{ cursor: 'pointer', fontWeight: 650, minHeight: 44, lineHeight: '44px' }}
          >
            {t`Other checks you can do now`}
          </Box>
          {it.next.slice(1, 7).map((c) => (
            <Box key={c.id} sx={{ py: 0.5, borderTop: '1px solid', borderColor: 'divider' }}>
              <b>{c.label}.</b> {t`About ${c.minutes} minutes.`} {c.how}
              <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 0.5 }}>
                <Doing check={c} trace={it} busy={busy} onAnswer={onAnswer} />
              </Box>
            </Box>
          ))}
        </Box>
      )}
      {it.piece.length > 0 && <Lines name={t`The piece`} lines={it.piece} />}
      {it.facts.length > 0 && (
        <Lines name={t`Known at the start`} lines={it.facts.map((f) => upper(f) + '.')} />
      )}
      {it.before.length > 0 && (
        <Box component="section" aria-label={t`The same before`}>
          <Typography variant="h3" component="h2">{t`It happened before`}</Typography>
          {it.before.map((b) => (
            <Box key={b.id}>
              <Link to={`/diagnose/${b.id}`}>{day(b.at)}</Link>: {b.signs.join(', ').toLowerCase()}.{' '}
              {b.cause
                ? `${[b.cause, b.fixed && t`fixed`].filter(Boolean).join(', ')}.`
                : t`No cause was proved.`}
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Lines({ name, lines }: { name: string; lines: string[] }) {
  return (
    <Box component="section" aria-label={name}>
      <Typography variant="h3" component="h2">
        {name}
      </Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </Box>
    </Box>
  );
}
