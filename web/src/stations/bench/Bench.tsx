/** Bench: each saw with the blade on it, what is due, what is under way, and the last lines of its log. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useCare } from '../../api/care';
import { useStartMounting } from '../../api/mount';
import { useBlades } from '../../api/rack';
import { useBench } from '../../api/shop';
import { useMoveSaw } from '../../api/truing';
import type { BenchSaw, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { BladeFace } from '../../drawings/BladeFace';
import { specOf } from '../../drawings/words';
import { formatFigure } from '../../measure/format';
import { Condition } from '../../ui/Condition';
import { Entry } from '../../ui/Entry';
import { Verdict } from '../../ui/Verdict';
import { UnderWay } from '../care/UnderWay';
import { testWords } from '../truing/tests';
import { useDates } from '../../ui/useDates';
import { FirstThings } from '../../ui/FirstThings';
import { Notice, Trouble } from '../../ui/Notice';

export function Bench() {
  const { units } = usePreferences();
  const { search } = useLocation();
  const bench = useBench();
  const care = useCare();
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Typography variant="h1">Bench</Typography>
      {bench.error && <Trouble sx={{ my: 2 }}>{bench.error.message}</Trouble>}
      {bench.data?.length === 0 && <FirstThings missing="saw" />}
      {care.data && <UnderWay sheet={care.data} search={search} />}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 380px), 1fr))',
          columnGap: 4,
          rowGap: 2,
          mt: 1,
        }}
      >
        {bench.data?.map((b) => (
          <SawBench key={b.saw.id} bench={b} units={units} />
        ))}
      </Box>
    </Box>
  );
}

function SawBench({ bench: b, units }: { bench: BenchSaw; units: Units }) {
  const { short } = useDates();
  const { search } = useLocation();
  const move = useMoveSaw();
  const to = new URLSearchParams(search);
  to.set('saw', b.saw.id);
  return (
    <Box
      component="section"
      aria-label={b.saw.name}
      sx={{ borderTop: '2px solid', borderColor: 'text.primary', pt: 1, minWidth: 0 }}
    >
      <Typography variant="h2" sx={{ overflowWrap: 'anywhere' }}>
        {b.saw.name}
      </Typography>
      {b.mounting_id && (
        <Notice
          kind="said"
          sx={{ my: 1 }}
          action={
            <Button component={Link} to={`/mount/${b.mounting_id}${search}`} size="small">
              Go on
            </Button>
          }
        >
          {b.mounting_blade} is being mounted.
        </Notice>
      )}
      <Box sx={{ display: 'flex', gap: 2, my: 1, minHeight: 150 }}>
        {b.blade ? (
          <>
            <BladeFace blade={b.blade} scale={Math.min(0.46, 142 / (b.blade.diameter_mm + 4))} />
            <Box sx={{ minWidth: 0, flex: 1 }}>
              <Typography variant="h3" sx={{ overflowWrap: 'anywhere' }}>
                <Box
                  component={Link}
                  to={`/rack/${b.blade.id}${search}`}
                  sx={{
                    color: 'inherit',
                    display: 'inline-flex',
                    alignItems: 'center',
                    minHeight: { xs: 44, md: 0 },
                    minWidth: { xs: 44, md: 0 },
                  }}
                >
                  {b.blade.name}
                </Box>
              </Typography>
              <Box sx={{ fontSize: 14.5, color: 'text.secondary', mb: 0.5 }}>{specOf(b.blade, units)}</Box>
              <Condition condition={b.blade.condition} />
            </Box>
          </>
        ) : (
          <Box sx={{ color: 'text.secondary' }}>Nothing on it, as far as the log knows.</Box>
        )}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        <MountMenu saw={b.saw.id} sawName={b.saw.name} on={b.blade?.id} units={units} />
        <Button component={Link} to={`/?${to}`} variant="outlined" size="small">
          Choose a cut
        </Button>
        <Button component={Link} to={`/true?${to}`} variant="outlined" size="small">
          True it
        </Button>
        <Button
          size="small"
          disabled={move.isPending}
          onClick={() => move.mutate({ id: b.saw.id, key: crypto.randomUUID() })}
        >
          It was moved
        </Button>
      </Box>
      <Typography variant="h3" sx={{ mt: 2 }}>
        Due
      </Typography>
      {b.due.length === 0 ? (
        <Box>Nothing.</Box>
      ) : (
        <Box component="ul" aria-label={`Due on ${b.saw.name}`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {b.due.map((d) => (
            <Box
              component="li"
              key={d}
              sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 15.5 }}
            >
              <Verdict verdict="caution" size={13} />
              <span>{d}</span>
            </Box>
          ))}
        </Box>
      )}
      <Box
        component="dl"
        sx={{ m: 0, mt: 1, display: 'grid', gridTemplateColumns: '1fr auto', fontSize: 15 }}
      >
        {b.truings
          .filter((t) => t.figure !== undefined)
          .map((t) => (
            <Box
              key={t.test}
              sx={{
                display: 'contents',
                '& > *': { borderTop: '1px solid', borderColor: 'divider', py: 0.3 },
              }}
            >
              <Box component="dt" sx={{ color: 'text.secondary' }}>
                {testWords[t.test].title}
              </Box>
              <Box component="dd" sx={{ m: 0, textAlign: 'right' }}>
                {formatFigure(t.figure ?? 0, t.figure_unit ?? 'mm', units)}
                {', '}
                {t.at && short(t.at)}
              </Box>
            </Box>
          ))}
      </Box>
      <Typography variant="h3" sx={{ mt: 2 }}>
        Last
      </Typography>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {b.last.map((e) => (
          <Entry key={e.id} entry={e} units={units} />
        ))}
      </Box>
    </Box>
  );
}

/** Which blade goes on; one that may not is refused with the rule that stops it. */
function MountMenu({
  saw,
  sawName,
  on,
  units,
}: {
  saw: string;
  sawName: string;
  on: string | undefined;
  units: Units;
}) {
  const blades = useBlades();
  const start = useStartMounting();
  const go = useNavigate();
  const { search } = useLocation();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [refused, setRefused] = useState<string>();
  return (
    <>
      <Button variant="contained" size="small" onClick={(e) => setAnchor(e.currentTarget)}>
        Mount a blade
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{
          list: { 'aria-label': `Blades for ${sawName}`, dense: true },
          paper: { sx: { maxHeight: 420 } },
        }}
      >
        {(blades.data ?? [])
          .filter((b) => b.id !== on)
          .map((b) => (
            <MenuItem
              key={b.id}
              onClick={() => {
                setAnchor(null);
                setRefused(undefined);
                start.mutate(
                  { saw_id: saw, blade_id: b.id, units },
                  {
                    onSuccess: (m) => void go(`/mount/${m.id}${search}`),
                    onError: (e) => setRefused(e.message),
                  },
                );
              }}
            >
              {b.name}, {specOf(b, units)}
            </MenuItem>
          ))}
      </Menu>
      {refused && <Trouble sx={{ width: '100%' }}>{refused}</Trouble>}
    </>
  );
}
