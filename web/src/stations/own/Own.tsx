/** Own: which blade to buy next, over what the shop really cuts; what hangs there for nothing, and what has no stand-in. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useEffectEvent, useState } from 'react';
import { Link } from 'react-router';
import { useJobs } from '../../api/jobs';
import { useNoteOwning, useOwning, useOwningNotes } from '../../api/own';
import { useSaws } from '../../api/rack';
import type { Owning, OwningInput, Purchase, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { formatRun } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { saidMinutes } from '../../ui/feed';
import { CheckField, NumberField, SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { Verdict } from '../../ui/Verdict';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';
import { Schools } from './Schools';
import { SoldFace } from './SoldFace';

const LOG = 'log';

type Edit = (said: OwningInput) => OwningInput;

/**
 * Prices and wishes as they are being said; kept shortly after the last word, over
 * their version. What is said is laid over what stands there, so that saving again
 * after somebody else was first keeps what both have said.
 */
function useNotes() {
  const notes = useOwningNotes();
  const save = useNoteOwning();
  const [edits, setEdits] = useState<Edit[]>([]);
  const kept = notes.data;
  const said =
    kept &&
    edits.reduce<OwningInput>((n, edit) => edit(n), {
      hour: kept.hour,
      prices: kept.prices,
      wishes: kept.wishes,
    });
  const keep = () =>
    kept &&
    said &&
    edits.length > 0 &&
    save.mutate(
      { version: kept.version, body: said },
      { onSuccess: () => setEdits((all) => all.slice(edits.length)) },
    );
  const soon = useEffectEvent(keep);
  const waits = edits.length > 0 && !save.isPending && !save.isError;
  useEffect(() => {
    if (!waits) return;
    const timer = setTimeout(() => soon(), 500);
    return () => clearTimeout(timer);
  }, [edits, waits]);
  const leave = useEffectEvent(keep);
  useEffect(() => () => void leave(), []);
  return {
    said,
    say: (edit: Edit) => {
      if (save.isError) save.reset();
      setEdits((all) => [...all, edit]);
    },
    error: notes.error ?? save.error,
    again: () => (edits.length > 0 ? keep() : void notes.refetch()),
  };
}

export function Own() {
  const { units } = usePreferences();
  const jobs = useJobs().data ?? [];
  const saws = useSaws();
  const [over, setOver] = useState(LOG);
  const notes = useNotes();
  const owning = useOwning({ units, job_id: over === LOG ? undefined : over });
  const said: OwningInput = notes.said ?? { prices: [], wishes: [] };
  const o = owning.data;
  if (saws.data?.length === 0)
    return (
      <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
        <Typography variant="h1">{t`What to buy next`}</Typography>
        <FirstThings missing="saw" />
      </Box>
    );
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: '1 1 260px' }}>{t`What to buy next`}</Typography>
        <Button variant="outlined" component={Link} to="/buy/first">{t`First blades`}</Button>
        <Button variant="outlined" onClick={() => print()}>{t`Print`}</Button>
      </Box>
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: { xs: '1fr', sm: '280px 200px' },
          my: 1.5,
          '@media print': { display: 'none' },
        }}
      >
        <SelectField
          label={t`Based on`}
          value={over}
          choices={[[LOG, t`our log of the past year`], ...jobs.map((j) => [j.id, j.name] as const)]}
          onChoose={setOver}
        />
        <NumberField
          label={t`Value of an hour`}
          value={said.hour}
          onNumber={(hour) => notes.say((n) => ({ ...n, hour }))}
        />
      </Box>
      {notes.error && <Trouble onAgain={notes.again}>{notes.error.message}</Trouble>}
      {owning.error && <Trouble>{owning.error.message}</Trouble>}
      {!o && !owning.error && <Coming of={[owning]} rows={3} height={140} />}
      {o && !owning.error && (
        <>
          <Box role="status" sx={{ fontSize: 22, fontWeight: 650, lineHeight: 1.3, maxWidth: 820 }}>
            <Worded>{o.says}</Worded>
          </Box>
          <Box sx={{ color: 'text.secondary', mb: 1.5 }}>
            {t`Based on ${plural(o.pieces, { one: '# piece', other: '# pieces' })}, ${formatRun(o.metres, units)}, ${saidMinutes(o.total_min)} with your blades sharp and clean.`}
          </Box>
          {o.one.map((p, i) => (
            <Bought
              key={i}
              bought={p}
              best={o.one[0]!.saves_min}
              units={units}
              wished={said.wishes.some((w) => w.id === p.blades[0]!.id)}
              onWish={(on) => {
                const b = p.blades[0]!;
                const one = { id: b.id, name: `${b.name}, ${b.saws.join(', ')}`, why: p.says };
                notes.say((n) => {
                  const others = n.wishes.filter((w) => w.id !== b.id);
                  return { ...n, wishes: on ? [...others, one] : others };
                });
              }}
            />
          ))}
          {o.two && <Together bought={o.two} />}
          {o.three && <Together bought={o.three} />}
          <Wishes
            of={said.wishes}
            onDrop={(id) => notes.say((n) => ({ ...n, wishes: n.wishes.filter((w) => w.id !== id) }))}
          />
          <HeardHere heard={o.heard} />
          <Idle o={o} />
          <Schools o={o} units={units} />
          <Typography variant="h2" sx={{ mt: 3 }}>{t`Prices`}</Typography>
          <Box sx={{ color: 'text.secondary', mb: 1 }}>
            {t`Enter your prices. Without them, only time counts.`}
          </Box>
          <Box
            sx={{
              display: 'grid',
              gap: 1.5,
              gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 200px), 1fr))',
            }}
          >
            {o.market.map((b) => (
              <NumberField
                key={b.id}
                label={`${b.name}, ${b.saws.join(', ')}`}
                value={said.prices.find((x) => x.id === b.id)?.price}
                onNumber={(price) =>
                  notes.say((n) => {
                    const others = n.prices.filter((x) => x.id !== b.id);
                    return { ...n, prices: price === undefined ? others : [...others, { id: b.id, price }] };
                  })
                }
              />
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}

/** One blade: what it saves as a bar, and the cuts that it would take over. */
function Bought({
  bought: p,
  best,
  units,
  wished,
  onWish,
}: {
  bought: Purchase;
  best: number;
  units: Units;
  wished: boolean;
  onWish: (on: boolean) => void;
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 5fr) minmax(0, 6fr)' },
        columnGap: 4,
        rowGap: 1,
        alignItems: 'center',
        py: 1.5,
        borderTop: '1px solid',
        borderColor: 'divider',
        breakInside: 'avoid',
      }}
    >
      {p.blades.map((b) => (
        <SoldFace key={b.id} blade={b} units={units} />
      ))}
      <Box>
        <Box
          aria-hidden
          sx={{
            height: 26,
            width: `${Math.max(4, (100 * p.saves_min) / Math.max(1, best))}%`,
            border: '2px solid',
            borderColor: 'text.primary',
            backgroundImage: 'repeating-linear-gradient(100deg, currentColor 0 1px, transparent 1px 7px)',
          }}
        />
        <Box sx={{ fontWeight: 650, mt: 0.5 }}>{p.says}</Box>
        <Box sx={{ '@media print': { display: 'none' } }}>
          <CheckField label={t`on the wish list`} value={wished} onCheck={onWish} />
        </Box>
        <Box component="ul" sx={{ m: 0, pl: 2.5, fontSize: 15 }}>
          {p.takes.slice(0, 4).map((x) => (
            <li key={x.what}>
              {plural(x.pieces, { one: '# piece', other: '# pieces' })}: {x.what}, {saidMinutes(x.saves_min)}
            </li>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

function Together({ bought: p }: { bought: Purchase }) {
  return (
    <Box sx={{ py: 1, borderTop: '1px solid', borderColor: 'divider' }}>
      <b>{p.blades.map((b) => b.name).join(' + ')}</b>: {p.says}
    </Box>
  );
}

/** What somebody means to buy, and why; it prints with the page. */
function Wishes({ of, onDrop }: { of: OwningInput['wishes']; onDrop: (id: string) => void }) {
  if (of.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="wishes" sx={{ mt: 2 }}>
      <Typography id="wishes" variant="h2">{t`Wish list`}</Typography>
      {of.map((w) => (
        <Box key={w.id} sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', py: 0.5 }}>
          <Box sx={{ flex: '1 1 260px' }}>
            <b>{w.name}</b>: {w.why}
          </Box>
          <Button size="small" onClick={() => onDrop(w.id)} sx={{ '@media print': { display: 'none' } }}>
            {t`Remove from list`}
          </Button>
        </Box>
      ))}
    </Box>
  );
}

/** What was measured or seen that stands against cuts today. */
function HeardHere({ heard }: { heard: Owning['heard'] }) {
  if (heard.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="heard" sx={{ mt: 2 }}>
      <Typography id="heard" variant="h2">{t`Fix this first`}</Typography>
      {heard.map((h) => (
        <Box key={h.name + h.why} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <Verdict verdict={h.verdict} size={14} />
          <span>
            <b>{h.name}</b>: {h.why} <b>{h.way_out}</b>
          </span>
        </Box>
      ))}
    </Box>
  );
}

/** What is owned for nothing, and what is missed when it is away. */
function Idle({ o }: { o: Owning }) {
  const links = (all: Owning['alone']) =>
    all.map((b, i) => (
      <span key={b.id}>
        {i > 0 && ', '}
        <Box component={Link} to={`/blades/${b.id}`} sx={{ color: 'primary.main', lineHeight: 2.6 }}>
          {b.name}
        </Box>
      </span>
    ));
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 3,
        gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' },
        mt: 2,
      }}
    >
      <Box component="section" aria-labelledby="idle">
        <Typography id="idle" variant="h2">{t`Blades you could do without`}</Typography>
        <Box>{o.never_best.length > 0 ? links(o.never_best) : t`Every blade is best for something.`}</Box>
      </Box>
      <Box component="section" aria-labelledby="alone">
        <Typography id="alone" variant="h2">{t`Blades with no substitute`}</Typography>
        <Box>{o.alone.length > 0 ? links(o.alone) : t`Every cut has a substitute blade.`}</Box>
      </Box>
      {o.undone.length > 0 && (
        <Box component="section" aria-labelledby="undone">
          <Typography id="undone" variant="h2">{t`Cuts none of your blades can make`}</Typography>
          {o.undone.map((u) => (
            <Box key={u}>{u}</Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
