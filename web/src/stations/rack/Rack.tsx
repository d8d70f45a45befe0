/** Rack: every saw and blade of the shop, drawn from its own numbers, with what it is kept for. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useBlades, useSaws } from '../../api/rack';
import type { Blade, Saw, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { cutFace } from '../../app/theme';
import { BladeFace } from '../../drawings/BladeFace';
import { SawFace } from '../../drawings/SawFace';
import { retiredWords, specOf, keptForWords } from '../../drawings/words';
import { formatLength, formatThin, trim } from '../../measure/format';
import { Condition } from '../../ui/Condition';
import { useSize } from '../../ui/useSize';
import { matches, type Wanted } from './search';
import { Trouble } from '../../ui/Notice';

const SCALE = 0.46; // px per mm, one for the whole wall
const PEG = 288; // px, the least width of a blade's place
const TALL = 182; // px, of a place, as a first guess

/** A list laid out in columns of at least a width. */
const wall = (least: string) => ({
  listStyle: 'none',
  m: 0,
  p: 0,
  display: 'grid',
  gridTemplateColumns: `repeat(auto-fill, minmax(min(100%, ${least}), 1fr))`,
  columnGap: 3,
});

export function Rack() {
  const { units } = usePreferences();
  const saws = useSaws();
  const [wanted, setWanted] = useState<Wanted>({ text: '', use: '', state: '', retired: false });
  const blades = useBlades(wanted.retired);
  const { search } = useLocation();
  const asked = useDeferredValue(wanted);
  const found = useMemo(() => (blades.data ?? []).filter((b) => matches(b, asked)), [blades.data, asked]);
  const error = saws.error ?? blades.error;
  if (error) {
    return <Trouble sx={{ m: 2 }}>{error.message}</Trouble>;
  }
  const onSaw = (id: string | undefined) => blades.data?.find((b) => b.id === id);
  const total = blades.data?.length ?? 0;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ mr: 'auto' }}>
          Rack
        </Typography>
        <Button component={Link} to={`/rack/new${search}`} variant="contained" size="small">
          Add a blade
        </Button>
        <Button component={Link} to={`/rack/saws/new${search}`} variant="outlined" size="small">
          Add a saw
        </Button>
        <Button component={Link} to={`/rack/labels${search}`} variant="outlined" size="small">
          Labels
        </Button>
        <Button component={Link} to={`/rack/files${search}`} variant="outlined" size="small">
          Files in and out
        </Button>
        <Button component={Link} to={`/shop${search}`} variant="outlined" size="small">
          Shop
        </Button>
      </Box>
      <Box component="section" aria-labelledby="saws" sx={{ mt: 2 }}>
        <Typography id="saws" variant="h2">
          Saws
        </Typography>
        {saws.data?.length === 0 && <Typography sx={{ mt: 1 }}>No saw yet. Put the first one in.</Typography>}
        <Box component="ul" sx={wall('380px')}>
          {(saws.data ?? []).map((s) => (
            <SawPlate key={s.id} saw={s} blade={onSaw(s.mounted_blade_id)} units={units} search={search} />
          ))}
        </Box>
      </Box>
      <Box component="section" aria-labelledby="blades" sx={{ mt: 3 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mb: 1 }}>
          <Typography id="blades" variant="h2" sx={{ mr: 1 }}>
            {wanted.retired ? 'Retired' : 'Blades'}
            {blades.data &&
              (found.length === total
                ? `, ${total} ${wanted.retired ? 'in all' : 'on the wall'}`
                : `, ${found.length} of ${total}`)}
          </Typography>
          <TextField
            label="Find"
            size="small"
            value={wanted.text}
            onChange={(e) => setWanted({ ...wanted, text: e.target.value })}
            placeholder="name, 60 ATB, peg 3…"
            sx={{ width: 220 }}
          />
          <Pick
            label="Kept for"
            value={wanted.use}
            choices={Object.entries(keptForWords)}
            onPick={(use) => setWanted({ ...wanted, use })}
          />
          <Pick
            label="Condition"
            value={wanted.state}
            choices={[
              ['fine', 'fine'],
              ['worn', 'worn'],
              ['pitchy', 'pitchy'],
              ['dull', 'dull'],
            ]}
            onPick={(state) => setWanted({ ...wanted, state })}
          />
          <Button
            size="small"
            aria-pressed={wanted.retired}
            onClick={() => setWanted({ ...wanted, retired: !wanted.retired })}
          >
            {wanted.retired ? 'Back to the wall' : 'Retired ones'}
          </Button>
        </Box>
        {blades.data && found.length === 0 && (
          <Typography sx={{ mt: 1 }}>
            {total > 0
              ? 'None of them is like that.'
              : wanted.retired
                ? 'Nothing is retired.'
                : 'The wall is empty. Add the first blade, or bring a file in.'}
          </Typography>
        )}
        <Wall blades={found} saws={saws.data ?? []} units={units} search={search} />
      </Box>
      <Typography sx={{ mt: 3, fontSize: 15, color: 'text.secondary' }}>
        All of it can be asked for by other programs: <Link to="/contract">the contract</Link>.
      </Typography>
    </Box>
  );
}

function Pick({
  label,
  value,
  choices,
  onPick,
}: {
  label: string;
  value: string;
  choices: [string, string][];
  onPick: (v: string) => void;
}) {
  return (
    <TextField
      select
      label={label}
      size="small"
      value={value}
      onChange={(e) => onPick(e.target.value)}
      sx={{ minWidth: 138 }}
    >
      <MenuItem value="">any</MenuItem>
      {choices.map(([v, name]) => (
        <MenuItem key={v} value={v}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface WallProps {
  blades: Blade[];
  saws: Saw[];
  units: Units;
  search: string;
}

/** The blades in rows, of which only those near the window are drawn. */
function Wall({ blades, saws, units, search }: WallProps) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const columns = Math.max(1, Math.floor((width + 24) / (PEG + 24)));
  const rows = width > 0 ? Math.ceil(blades.length / columns) : 0;
  const [above, setAbove] = useState(0);
  const top = useRef<HTMLDivElement>(null);
  const sheet = () => document.getElementById('sheet');
  useLayoutEffect(() => {
    const s = sheet();
    if (!top.current || !s) return;
    setAbove(top.current.getBoundingClientRect().top - s.getBoundingClientRect().top + s.scrollTop);
  }, [width]);
  // The compiler's memo is not at work here, so what it warns of does no harm.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: sheet,
    estimateSize: () => TALL,
    overscan: 3,
    scrollMargin: above,
  });
  return (
    <div ref={ref}>
      <Box
        ref={top}
        role="list"
        aria-label="Blades"
        sx={{ position: 'relative' }}
        style={{ height: virtual.getTotalSize() }}
      >
        {virtual.getVirtualItems().map((row) => (
          <Box
            key={row.key}
            ref={virtual.measureElement}
            data-index={row.index}
            role="presentation"
            sx={{ position: 'absolute', left: 0, right: 0, top: 0, display: 'grid', columnGap: 3 }}
            style={{
              transform: `translateY(${row.start - above}px)`,
              gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
            }}
          >
            {blades.slice(row.index * columns, (row.index + 1) * columns).map((b, i) => (
              <BladePeg
                key={b.id}
                blade={b}
                saw={saws.find((s) => s.id === b.mounted_on)?.name}
                units={units}
                search={search}
                place={row.index * columns + i + 1}
                of={blades.length}
              />
            ))}
          </Box>
        ))}
      </Box>
    </div>
  );
}

function SawPlate({
  saw,
  blade,
  units,
  search,
}: {
  saw: Saw;
  blade: Blade | undefined;
  units: Units;
  search: string;
}) {
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        gap: 1.5,
        py: 1.5,
        borderTop: '1px solid',
        borderColor: 'divider',
        mt: 1,
        minWidth: 0,
      }}
    >
      <Box sx={{ flex: 'none', display: { xs: 'none', sm: 'block' } }}>
        <SawFace saw={saw} units={units} />
      </Box>
      <Box sx={{ minWidth: 0, fontSize: 15, lineHeight: 1.35 }}>
        <Typography variant="h3" sx={{ overflowWrap: 'anywhere' }}>
          <Box component={Link} to={`/rack/saws/${saw.id}${search}`} sx={{ color: 'inherit' }}>
            {saw.name}
          </Box>
        </Typography>
        <Box sx={{ color: 'text.secondary' }}>
          {formatLength(saw.diameter_mm, units)} {saw.sliding ? 'sliding miter' : saw.kind} saw, arbor{' '}
          {formatLength(saw.arbor_mm, units)}
        </Box>
        <Box>
          {trim(saw.rpm, 0)} rpm, {trim(saw.power_limit_w, 0)} W at the blade
          {saw.knife_mm && `, riving knife ${formatThin(saw.knife_mm, units)}`}
        </Box>
        <Box>
          On it: <b>{blade?.name ?? 'nothing logged yet'}</b>
        </Box>
        {saw.heel_mm !== 0 && <Box>Heel at last truing: {formatThin(saw.heel_mm, units)}</Box>}
        <Box sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>{saw.note}</Box>
      </Box>
    </Box>
  );
}

interface PegProps {
  blade: Blade;
  saw: string | undefined;
  units: Units;
  search: string;
  place: number;
  of: number;
}

function BladePeg({ blade, saw, units, search, place, of }: PegProps) {
  return (
    <Box
      role="listitem"
      aria-posinset={place}
      aria-setsize={of}
      sx={{ borderTop: '1px solid', borderColor: 'divider', mt: 1, minWidth: 0 }}
    >
      <Box
        component={Link}
        to={`/rack/${blade.id}${search}`}
        sx={{
          display: 'grid',
          gridTemplateColumns: '146px minmax(0,1fr)',
          gap: 1.5,
          py: 1.5,
          color: 'inherit',
          textDecoration: 'none',
          '&:hover': { bgcolor: 'background.paper' },
        }}
      >
        <Box sx={{ display: 'grid', placeItems: 'center', minHeight: 144 }}>
          <BladeFace blade={blade} scale={Math.min(SCALE, 142 / (blade.diameter_mm + 4))} />
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box
            sx={{
              fontFamily: cutFace,
              fontWeight: 640,
              fontSize: 20,
              lineHeight: 1.15,
              overflowWrap: 'anywhere',
            }}
          >
            {blade.name}
          </Box>
          <Box sx={{ fontSize: 14, color: 'text.secondary', lineHeight: 1.3 }}>
            {formatLength(blade.diameter_mm, units)}, {specOf(blade, units)}
          </Box>
          <Box sx={{ fontSize: 15, my: 0.5, lineHeight: 1.3, overflowWrap: 'anywhere' }}>
            for {keptForWords[blade.kept_for]}
            <br />
            {blade.retired ? (
              <b>{retiredWords[blade.retired.reason] ?? blade.retired.reason}</b>
            ) : saw ? (
              <b>on {saw}</b>
            ) : (
              blade.hangs
            )}
          </Box>
          <Condition condition={blade.condition} />
        </Box>
      </Box>
    </Box>
  );
}
