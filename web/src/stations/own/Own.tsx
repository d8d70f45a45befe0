/** Own: which blade to buy next, over what the shop really cuts; what hangs there for nothing, and what has no stand-in. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJobs } from '../../api/jobs';
import { useOwning } from '../../api/own';
import { useBlades, useSaws } from '../../api/rack';
import type { Owning, Purchase, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { formatRun } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { saidMinutes } from '../../ui/feed';
import { CheckField, NumberField, SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';
import { SoldFace } from './SoldFace';

const LOG = 'log';
const KEPT = 'corte.prices'; // what things cost, as somebody here said

interface Prices {
  hour?: number;
  of: Record<string, number>;
  wishes: Record<string, { name: string; why: string }>; // by the id of a blade
}

const kept = (): Prices => {
  try {
    return { of: {}, wishes: {}, ...(JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Prices>) };
  } catch {
    return { of: {}, wishes: {} };
  }
};

export function Own() {
  const { units } = usePreferences();
  const jobs = useJobs().data ?? [];
  const saws = useSaws();
  const [over, setOver] = useState(LOG);
  const [prices, setPrices] = useState(kept);
  const owning = useOwning({
    units,
    job_id: over === LOG ? undefined : over,
    hour: prices.hour,
    prices: Object.entries(prices.of).map(([id, price]) => ({ id, price })),
  });
  const price = (now: Prices) => {
    setPrices(now);
    localStorage.setItem(KEPT, JSON.stringify(now));
  };
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
        <Button variant="outlined" component={Link} to="/own/first">{t`First blades`}</Button>
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
          label={t`Over which work`}
          value={over}
          choices={[[LOG, t`our own log of a year`], ...jobs.map((j) => [j.id, j.name] as const)]}
          onChoose={setOver}
        />
        <NumberField
          label={t`An hour is worth`}
          value={prices.hour}
          onNumber={(hour) => price({ ...prices, hour })}
        />
      </Box>
      {owning.error && <Trouble>{owning.error.message}</Trouble>}
      {!o && !owning.error && <Coming of={[owning]} rows={3} height={140} />}
      {o && !owning.error && (
        <>
          <Box role="status" sx={{ fontSize: 22, fontWeight: 650, lineHeight: 1.3, maxWidth: 820 }}>
            <Worded>{o.says}</Worded>
          </Box>
          <Box sx={{ color: 'text.secondary', mb: 1.5 }}>
            {t`Weighed over ${plural(o.pieces, { one: '# piece', other: '# pieces' })}, ${formatRun(o.metres, units)}, ${saidMinutes(o.total_min)} with what you have, all of it sharp and clean.`}
          </Box>
          {o.one.map((p, i) => (
            <Bought
              key={i}
              bought={p}
              best={o.one[0]!.saves_min}
              units={units}
              wished={p.blades[0]!.id in prices.wishes}
              onWish={(on) => {
                const wishes = { ...prices.wishes };
                const b = p.blades[0]!;
                if (on) wishes[b.id] = { name: `${b.name}, ${b.saws.join(', ')}`, why: p.says };
                else delete wishes[b.id];
                price({ ...prices, wishes });
              }}
            />
          ))}
          {o.two && <Together bought={o.two} />}
          {o.three && <Together bought={o.three} />}
          <Wishes
            of={prices.wishes}
            onDrop={(id) => {
              const wishes = { ...prices.wishes };
              delete wishes[id];
              price({ ...prices, wishes });
            }}
          />
          <Idle o={o} />
          <Schools />
          <Typography variant="h2" sx={{ mt: 3 }}>{t`What they cost`}</Typography>
          <Box sx={{ color: 'text.secondary', mb: 1 }}>
            {t`Yours to say; without them minutes alone are weighed. They stay in this browser.`}
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
                value={prices.of[b.id]}
                onNumber={(v) => {
                  const of = { ...prices.of };
                  if (v === undefined) delete of[b.id];
                  else of[b.id] = v;
                  price({ ...prices, of });
                }}
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
function Wishes({ of, onDrop }: { of: Prices['wishes']; onDrop: (id: string) => void }) {
  const all = Object.entries(of);
  if (all.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="wishes" sx={{ mt: 2 }}>
      <Typography id="wishes" variant="h2">{t`Wish list`}</Typography>
      {all.map(([id, w]) => (
        <Box key={id} sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', py: 0.5 }}>
          <Box sx={{ flex: '1 1 260px' }}>
            <b>{w.name}</b>: {w.why}
          </Box>
          <Button size="small" onClick={() => onDrop(id)} sx={{ '@media print': { display: 'none' } }}>
            {t`Off the list`}
          </Button>
        </Box>
      ))}
    </Box>
  );
}

const MOST_USED = 5;

/** The schools of owning, each over the blades that this shop uses most: where sharpening pays, drawn. */
function Schools() {
  const used = (useBlades().data ?? [])
    .filter((b) => b.condition.metres > 0)
    .sort((a, b) => b.condition.metres - a.condition.metres)
    .slice(0, MOST_USED);
  if (used.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="schools" sx={{ mt: 2, '@media print': { display: 'none' } }}>
      <Typography id="schools" variant="h2">{t`Sharpen it, or throw cheap ones away?`}</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {used.map((b) => (
          <Button key={b.id} component={Link} to={`/care/money/${b.id}`} variant="outlined">
            {b.name}
          </Button>
        ))}
      </Box>
    </Box>
  );
}

/** What is owned for nothing, and what is missed when it is away. */
function Idle({ o }: { o: Owning }) {
  const links = (all: Owning['alone']) =>
    all.map((b, i) => (
      <span key={b.id}>
        {i > 0 && ', '}
        <Box component={Link} to={`/rack/${b.id}`} sx={{ color: 'primary.main', lineHeight: 2.6 }}>
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
        <Typography id="idle" variant="h2">{t`Never the best here`}</Typography>
        <Box>{o.never_best.length > 0 ? links(o.never_best) : t`Every blade is the best for something.`}</Box>
      </Box>
      <Box component="section" aria-labelledby="alone">
        <Typography id="alone" variant="h2">{t`No stand-in while it is away`}</Typography>
        <Box>{o.alone.length > 0 ? links(o.alone) : t`For every cut there is a second one.`}</Box>
      </Box>
      {o.undone.length > 0 && (
        <Box component="section" aria-labelledby="undone">
          <Typography id="undone" variant="h2">{t`Nothing here may cut`}</Typography>
          {o.undone.map((u) => (
            <Box key={u}>{u}</Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
