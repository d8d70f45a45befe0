/** Rack: the wall of blades, how each stands and what is due; the one that is looked at stands large beside it. */
import { t } from '@lingui/core/macro';
import { listOf } from '../../measure/format';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useCare, useLife } from '../../api/care';
import { useDamaged } from '../../api/copies';
import { useBlades, useSaws } from '../../api/rack';
import { useOwner } from '../../api/session';
import type { Blade, BladeCare, Units } from '../../api/types';
import { useAddress } from '../../ui/address';
import { usePhone } from '../../ui/phone';
import { usePreferences } from '../../ui/preferences';
import { BladeHero } from '../../drawings/BladeHero';
import { LifeChart } from '../../drawings/LifeChart';
import { specOf } from '../../drawings/words';
import { keptForWords, stateWords } from '../../drawings/recordWords';
import { ActionBar } from '../../ui/ActionBar';
import { Stands } from '../../ui/Condition';
import { SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { Notice, Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { Segments } from '../../ui/Segments';
import { useDates } from '../../ui/useDates';
import { SendDialog } from '../../ui/SendAndReturn';
import { hang, orders, type Order } from './order';
import { matches, type Wanted } from './search';
import { Wall } from './Wall';

const nobody: string[] = [];
const any = ['', t`any`] as const;
const uses = [any, ...Object.entries(keptForWords)];
const states = [any, ...Object.entries(stateWords)];

export function Rack() {
  const { units } = usePreferences();
  const phone = usePhone();
  const wide = useMediaQuery('(min-width: 1100px)');
  const saws = useSaws();
  const sheet = useCare();
  const care = sheet.data;
  // How the wall hangs stands in the address: coming back from a blade finds it as it was.
  const [params, change] = useAddress();
  const wanted = useMemo(
    (): Wanted => ({
      text: params.get('find') ?? '',
      use: params.get('use') ?? '',
      state: params.get('state') ?? '',
      retired: params.has('retired'),
    }),
    [params],
  );
  const order = orders.find((o) => o.value === params.get('hang'))?.value ?? 'due';
  const put = (name: 'find' | 'use' | 'state' | 'retired' | 'hang', value: string) =>
    change((now) => {
      if (value) now.set(name, value);
      else now.delete(name);
    });
  // A hand types faster than an address changes: what is typed is held until the address has it.
  const [typed, setTyped] = useState<string>();
  if (typed === wanted.text) setTyped(undefined);
  const setOrder = (o: Order) => put('hang', o === 'due' ? '' : o);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [looked, setLooked] = useState<string>();
  const blades = useBlades(wanted.retired);
  const owner = useOwner();
  const damaged = (useDamaged().data ?? []).filter((r) => ['blades', 'saws', 'dado_sets'].includes(r.table));
  const named = listOf(damaged.map((r) => r.name ?? r.id));
  const { search } = useLocation();
  const asked = useDeferredValue(wanted);
  const found = useMemo(() => (blades.data ?? []).filter((b) => matches(b, asked)), [blades.data, asked]);
  const urgent = useMemo(() => care?.blades.map((b) => b.blade.id) ?? nobody, [care]);
  const shelves = useMemo(
    () => hang(found, order, urgent, saws.data ?? [], units),
    [found, order, urgent, saws.data, units],
  );
  const names = useMemo(() => new Map((saws.data ?? []).map((s) => [s.id, s.name])), [saws.data]);
  const failed = (blades.error && !blades.data && blades.error) || (saws.error && !saws.data && saws.error);
  const total = blades.data?.length ?? 0;
  // They hang by what is due: nothing is hung before that is known.
  const ready = blades.data !== undefined && saws.data !== undefined && !sheet.isPending;
  const first = shelves[0]?.blades[0];
  const shown = found.find((b) => b.id === looked) ?? first;
  const pick = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setPicked(next);
  };
  const some = found.filter((b) => picked.has(b.id));
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, pt: 1.5, pb: some.length > 0 ? 0 : 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <Typography variant="h1">{t`Blades`}</Typography>
        <Box role="status" sx={{ mr: 'auto', color: 'text.secondary', width: { xs: 96, sm: 'auto' } }}>
          {!blades.data && '\u00a0'}
          {blades.data &&
            (found.length === total
              ? wanted.retired
                ? t`${total} retired`
                : t`${total} in the rack`
              : t`${found.length} of ${total}`)}
        </Box>
        <Button component={Link} to={`/blades/new${search}`} variant="contained">{t`Add blade`}</Button>
        <More
          retired={wanted.retired}
          search={search}
          onRetired={(retired) => put('retired', retired ? 'yes' : '')}
        />
      </Box>
      {failed && <Trouble sx={{ my: 2 }}>{failed.message}</Trouble>}
      {damaged.length > 0 && (
        <Notice
          kind="caution"
          sx={{ my: 1 }}
          action={owner && <Button component={Link} to="/settings">{t`Repair records`}</Button>}
        >
          {owner
            ? t`These records can't be read and are left out: ${named}.`
            : t`These records can't be read and are left out: ${named}. An owner can repair them.`}
        </Notice>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'repeat(3, minmax(0, 1fr))', sm: '200px 150px 150px auto' },
          gap: 1.5,
          alignItems: 'center',
          justifyContent: 'start',
          my: 1,
        }}
      >
        <TextField
          label={t`Find`}
          size="small"
          value={typed ?? wanted.text}
          onChange={(e) => {
            setTyped(e.target.value);
            put('find', e.target.value);
          }}
          placeholder={t`name, 60 ATB, peg 3…`}
        />
        <SelectField
          label={t`Set aside for`}
          value={wanted.use}
          choices={uses}
          onChoose={(use) => put('use', use)}
        />
        <SelectField
          label={t`Condition`}
          value={wanted.state}
          choices={states}
          onChoose={(state) => put('state', state)}
        />
        <Box
          sx={{
            gridColumn: { xs: '1 / -1', sm: '1 / -1', md: 'auto' },
            overflowX: 'auto',
            '& > div': { width: 'max-content' },
          }}
        >
          <Segments label={t`Sort`} value={order} choices={orders} onChoose={setOrder} />
        </Box>
      </Box>
      {blades.data && found.length === 0 && (
        <Box sx={{ my: 2 }}>
          {total > 0 ? (
            t`No blades match.`
          ) : wanted.retired ? (
            t`No retired blades.`
          ) : (
            <FirstThings missing={saws.data?.length === 0 ? 'saw' : 'blade'} />
          )}
        </Box>
      )}
      {!ready && !failed && <Outline rows={3} height={200} />}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: wide ? 'minmax(0, 1fr) 360px' : 'minmax(0, 1fr)',
          columnGap: 4,
          alignItems: 'start',
        }}
      >
        {ready && (
          <Wall
            shelves={shelves}
            total={found.length}
            saws={names}
            search={search}
            phone={phone}
            picked={picked}
            onPick={pick}
            onLook={setLooked}
          />
        )}
        {ready && wide && shown && (
          <Box sx={{ position: 'sticky', top: 8 }}>
            <Beside blade={shown} units={units} search={search} />
          </Box>
        )}
      </Box>
      {some.length > 0 && (
        <PickedBar blades={some} care={care?.blades ?? []} onClear={() => setPicked(new Set())} />
      )}
    </Box>
  );
}

/** The blade that is looked at, large, with what can be done at once. */
function Beside({ blade: b, units, search }: { blade: Blade; units: Units; search: string }) {
  const life = useLife(b.id).data;
  const { day } = useDates();
  return (
    <Box component="aside" aria-label={b.name}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h2" sx={{ overflowWrap: 'anywhere' }}>
          {b.name}
        </Typography>
        <Stands condition={b.condition} />
      </Box>
      <Box sx={{ fontSize: 15, color: 'text.secondary' }}>
        {[b.teeth > 0 && specOf(b, units), t`for ${keptForWords[b.kept_for]}`].filter(Boolean).join(', ')}
      </Box>
      <BladeHero blade={b} units={units} />
      {life && life.points.length >= 2 && (
        <Box sx={{ height: 190 }}>
          <LifeChart life={life} units={units} day={day} />
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
        <Button component={Link} to={`/blades/${b.id}${search}`} variant="outlined">{t`Blade page`}</Button>
        {b.teeth > 0 && !b.retired && (
          <Button component={Link} to={`/care/wash?b=${b.id}`} variant="outlined">{t`Clean`}</Button>
        )}
      </Box>
    </Box>
  );
}

/** What is done with several at once. */
function PickedBar({ blades, care, onClear }: { blades: Blade[]; care: BladeCare[]; onClear: () => void }) {
  const go = useNavigate();
  const [sending, setSending] = useState(false);
  const of = (name: string) => blades.map((b) => `${name}=${b.id}`).join('&');
  const washable = blades.filter((b) => b.teeth > 0 && !b.condition.away);
  const one = blades.length === 1 ? care.find((c) => c.blade.id === blades[0]!.id) : undefined;
  return (
    <ActionBar>
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: { xs: 0.5, sm: 1 },
          px: 1.5,
          width: '100%',
          alignItems: 'center',
          '& .MuiButton-root': { px: { xs: 1.25, sm: 2 }, minWidth: 44 },
        }}
      >
        <Box role="status" sx={{ mr: 'auto', fontWeight: 650 }}>{t`${blades.length} picked`}</Box>
        <Button onClick={onClear}>{t`Clear`}</Button>
        <Button component={Link} to={`/blades/labels?${of('only')}`} variant="outlined">{t`Labels`}</Button>
        {one && !one.blade.condition.away && (
          <Button variant="outlined" onClick={() => setSending(true)}>{t`Send out`}</Button>
        )}
        <Button
          variant="contained"
          disabled={washable.length === 0}
          onClick={() => void go(`/care/wash?${washable.map((b) => `b=${b.id}`).join('&')}`)}
        >
          {t`Clean ${washable.length}`}
        </Button>
      </Box>
      {sending && one && <SendDialog care={one} onClose={() => setSending(false)} />}
    </ActionBar>
  );
}

function More({
  retired,
  search,
  onRetired,
}: {
  retired: boolean;
  search: string;
  onRetired: (v: boolean) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        aria-label={t`More for blades`}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        {t`More`}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem component={Link} to={`/blades/look${search}`}>{t`Which blade is this?`}</MenuItem>
        <MenuItem component={Link} to={`/saws/new${search}`}>{t`Add saw`}</MenuItem>
        <MenuItem component={Link} to={`/blades/labels${search}`}>{t`Labels`}</MenuItem>
        <MenuItem component={Link} to={`/blades/files${search}`}>{t`Import and export`}</MenuItem>
        <MenuItem
          onClick={() => {
            setAnchor(null);
            onRetired(!retired);
          }}
        >
          {retired ? t`Back to my blades` : t`Retired blades`}
        </MenuItem>
        <MenuItem component={Link} to="/contract">{t`API contract`}</MenuItem>
      </Menu>
    </>
  );
}
