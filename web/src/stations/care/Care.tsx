/** Care: how every blade stands, what is due and when, and what is under way. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useCare } from '../../api/care';
import type { BladeCare, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { BladeFace } from '../../drawings/BladeFace';
import { HealthRow, HealthScale } from '../../drawings/HealthRow';
import { specOf } from '../../drawings/words';
import { formatRun, listOf } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { Condition, Stands } from '../../ui/Condition';
import { useNow } from '../../ui/useNow';
import { Baths } from './Baths';
import { BladeMenu } from '../../ui/BladeMenu';
import { Calendar } from './Calendar';
import { UnderWay } from '../../ui/UnderWay';
import { useDates } from '../../ui/useDates';
import { ActionBar } from '../../ui/ActionBar';
import { Segments } from '../../ui/Segments';
import { FirstThings } from '../../ui/FirstThings';

export function Care() {
  const { units } = usePreferences();
  const { search } = useLocation();
  const care = useCare();
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const go = useNavigate();
  const [only, setOnly] = useState<Only>('all');
  const [order, setOrder] = useState<Order>('due');
  const pick = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setPicked(next);
  };
  const all = care.data?.blades ?? [];
  const due = all.filter((b) => isDue(b));
  const shown = [...all.filter((b) => only === 'all' || stands[only](b))].sort(by[order]);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, pt: 1.5, pb: picked.size > 0 ? 0 : 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1 }}>
        <Typography variant="h1" sx={{ mr: 'auto' }}>{t`Care`}</Typography>
        <Button variant="outlined" component={Link} to={`/care/bath${search}`}>{t`Mix a bath`}</Button>
      </Box>
      {!care.data && <Coming of={[care]} rows={6} height={64} />}
      {care.data && <UnderWay sheet={care.data} search={search} />}
      {care.data && care.data.blades.length > 0 && (
        <Box sx={{ fontSize: 18, my: 1 }}>
          {due.length === 0
            ? t`Nothing is due.`
            : plural(due.length, {
                one: `# blade needs attention now: ${listOf(due.map((b) => b.blade.name))}.`,
                other: `# blades need attention now: ${listOf(due.map((b) => b.blade.name))}.`,
              })}
        </Box>
      )}
      {care.data?.blades.length === 0 && <FirstThings missing="blade" />}
      {care.data && care.data.blades.length > 0 && (
        <Box component="section" aria-label={t`Blade health`}>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, my: 1, overflowX: 'auto' }}>
            <Segments label={t`Show`} value={only} choices={onlies} onChoose={setOnly} />
            <Segments label={t`Order`} value={order} choices={orders} onChoose={setOrder} />
          </Box>
          <Legend />
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {shown.map((b) => (
              <Row
                key={b.blade.id}
                care={b}
                units={units}
                search={search}
                picked={picked.has(b.blade.id)}
                onPick={() => pick(b.blade.id)}
              />
            ))}
          </Box>
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'repeat(2, minmax(0,1fr))' },
          gap: 4,
          mt: 3,
        }}
      >
        {care.data && <Baths baths={care.data.baths} units={units} />}
        {care.data && <Calendar />}
      </Box>
      {picked.size > 0 && (
        <ActionBar>
          <Box sx={{ display: 'flex', gap: 1, px: 1.5, width: '100%', alignItems: 'center' }}>
            <Box role="status" sx={{ mr: 'auto', fontWeight: 650 }}>{t`${picked.size} picked`}</Box>
            <Button onClick={() => setPicked(new Set())}>{t`Clear`}</Button>
            <Button
              variant="contained"
              onClick={() => void go(`/care/wash?${[...picked].map((id) => `b=${id}`).join('&')}`)}
            >
              {t`Clean ${picked.size}`}
            </Button>
          </Box>
        </ActionBar>
      )}
    </Box>
  );
}

type Only = 'all' | 'due' | 'soon' | 'away';
type Order = 'due' | 'edge' | 'pitch' | 'name';

const onlies: { value: Only; name: string }[] = [
  { value: 'all', name: t`All` },
  { value: 'due', name: t`Due` },
  { value: 'soon', name: t`Soon` },
  { value: 'away', name: t`Away` },
];
const orders: { value: Order; name: string }[] = [
  { value: 'due', name: t`Due first` },
  { value: 'edge', name: t`Edge` },
  { value: 'pitch', name: t`Resin` },
  { value: 'name', name: t`Name` },
];

const isDue = (b: BladeCare) => (b.wash === 'due' || b.sharpen === 'due') && !b.blade.condition.away;
const stands: Record<Exclude<Only, 'all'>, (b: BladeCare) => boolean> = {
  due: isDue,
  soon: (b) => b.wash === 'soon' || b.sharpen === 'soon',
  away: (b) => b.blade.condition.away,
};
/** As the server sends them, the most urgent come first. */
const by: Record<Order, (a: BladeCare, b: BladeCare) => number> = {
  due: () => 0,
  edge: (a, b) => b.blade.condition.wear_share - a.blade.condition.wear_share,
  pitch: (a, b) => b.blade.condition.pitch_level - a.blade.condition.pitch_level,
  name: (a, b) => a.blade.name.localeCompare(b.blade.name),
};

const columns = {
  xs: '44px minmax(0,1fr) 44px',
  md: '44px 52px minmax(140px, 1fr) 120px minmax(200px, 1.3fr) minmax(260px, 1.7fr) 44px',
};

/** Said of most blades, so it is left out. */
const usualLeft = t`good carbide can be sharpened about ten times`;

function Legend() {
  return (
    <Box
      sx={{
        display: { xs: 'none', md: 'grid' },
        gridTemplateColumns: columns.md,
        columnGap: 2,
        alignItems: 'end',
        fontSize: 13.5,
        color: 'text.secondary',
      }}
    >
      <span />
      <span />
      <span>{t`blade`}</span>
      <span>{t`condition`}</span>
      <Box>
        {t`Drop: clean. Tooth: sharpen. Two of three blades fall within the bar.`}
        <HealthScale />
      </Box>
      <span>{t`what to do`}</span>
      <span />
    </Box>
  );
}

function Row({
  care: c,
  units,
  search,
  picked,
  onPick,
}: {
  care: BladeCare;
  units: Units;
  search: string;
  picked: boolean;
  onPick: () => void;
}) {
  const { short } = useDates();
  const now = useNow(60_000);
  const b = c.blade;
  const step = c.path.find((s) => !s.done);
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: columns,
        columnGap: 2,
        rowGap: 0.5,
        alignItems: 'center',
        borderTop: '1px solid',
        borderColor: 'divider',
        py: 0.25,
        '& > *': { minWidth: 0 },
      }}
    >
      <Checkbox
        checked={picked}
        disabled={b.condition.away}
        onChange={onPick}
        slotProps={{ input: { 'aria-label': t`Clean ${b.name}` } }}
      />
      <Box sx={{ display: { xs: 'none', md: 'block' } }}>
        <BladeFace blade={b} scale={44 / (b.diameter_mm + 4)} />
      </Box>
      <Box>
        <Box
          component={Link}
          to={`/blades/${b.id}${search}`}
          sx={{
            color: 'inherit',
            fontWeight: 700,
            fontSize: 17,
            overflowWrap: 'anywhere',
            display: 'inline-flex',
            alignItems: 'center',
            minHeight: { xs: 44, md: 0 },
            minWidth: { xs: 44, md: 0 },
          }}
        >
          {b.name}
        </Box>
        <Box sx={{ fontSize: 14, color: 'text.secondary' }}>{specOf(b, units)}</Box>
      </Box>
      <Box sx={{ gridColumn: { xs: '2 / 4', md: 'auto' } }}>
        <Condition condition={b.condition} bare />
      </Box>
      <Box sx={{ gridColumn: { xs: '2 / 4', md: 'auto' } }}>
        <HealthRow care={c} now={now} day={short} />
      </Box>
      <Box sx={{ fontSize: 14.5, gridColumn: { xs: '2 / 4', md: 'auto' } }}>
        <Stands condition={b.condition} />
        <Box sx={{ color: 'text.secondary' }}>
          {c.left_m > 0 &&
            `${t`Dull in about ${formatRun(c.left_m, units)} (${formatRun(c.left_low_m, units)} to ${formatRun(c.left_high_m, units)}).`} `}
          {plural(c.sharpenings_left, { one: '# sharpening left', other: '# sharpenings left' })}
          {c.left_from !== usualLeft && `, ${c.left_from}`}
        </Box>
        {step && <Box sx={{ fontWeight: 650 }}>{step.text}</Box>}
      </Box>
      <Box sx={{ gridRow: { xs: 1, md: 'auto' }, gridColumn: { xs: 3, md: 'auto' } }}>
        <BladeMenu care={c} />
      </Box>
    </Box>
  );
}
