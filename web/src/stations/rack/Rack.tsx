/** Rack: every saw and blade of the shop, drawn from its own numbers, with what it is kept for. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link, useLocation } from 'react-router';
import { useBlades, useSaws } from '../../api/queries';
import type { Blade, Saw, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { cutFace } from '../../app/theme';
import { BladeFace } from '../../drawings/BladeFace';
import { SawFace } from '../../drawings/SawFace';
import { specOf, useWords } from '../../drawings/words';
import { formatLength, formatThin, trim } from '../../measure/format';
import { Condition } from '../../ui/Condition';

const SCALE = 0.46; // px per mm, one for the whole wall

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
  const blades = useBlades();
  const { search } = useLocation();
  const error = saws.error ?? blades.error;
  if (error) {
    return (
      <Alert severity="error" variant="outlined" sx={{ m: 2 }}>
        {error.message}
      </Alert>
    );
  }
  const onSaw = (id: string | undefined) => blades.data?.find((b) => b.id === id);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Typography variant="h1">Rack</Typography>
      <Box component="section" aria-labelledby="saws" sx={{ mt: 2 }}>
        <Typography id="saws" variant="h2">
          Saws
        </Typography>
        <Box component="ul" sx={wall('380px')}>
          {(saws.data ?? []).map((s) => (
            <SawPlate key={s.id} saw={s} blade={onSaw(s.mounted_blade_id)} units={units} />
          ))}
        </Box>
      </Box>
      <Box component="section" aria-labelledby="blades" sx={{ mt: 3 }}>
        <Typography id="blades" variant="h2">
          Blades{blades.data && `, ${blades.data.length} on the wall`}
        </Typography>
        {blades.data?.length === 0 && (
          <Typography sx={{ mt: 1 }}>
            The wall is empty. Start Corte with its demo shop to see blades on it.
          </Typography>
        )}
        <Box component="ul" sx={wall('288px')}>
          {(blades.data ?? []).map((b) => (
            <BladePeg
              key={b.id}
              blade={b}
              saw={saws.data?.find((s) => s.id === b.mounted_on)?.name}
              units={units}
              search={search}
            />
          ))}
        </Box>
      </Box>
      <Typography sx={{ mt: 3, fontSize: 15, color: 'text.secondary' }}>
        All of it can be asked for by other programs: <Link to="/contract">the contract</Link>.
      </Typography>
    </Box>
  );
}

function SawPlate({ saw, blade, units }: { saw: Saw; blade: Blade | undefined; units: Units }) {
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
          {saw.name}
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
        <Box sx={{ color: 'text.secondary' }}>{saw.note}</Box>
      </Box>
    </Box>
  );
}

interface PegProps {
  blade: Blade;
  saw: string | undefined;
  units: Units;
  search: string;
}

function BladePeg({ blade, saw, units, search }: PegProps) {
  return (
    <Box component="li" sx={{ borderTop: '1px solid', borderColor: 'divider', mt: 1 }}>
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
          <BladeFace blade={blade} scale={SCALE} />
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
          <Box sx={{ fontSize: 15, my: 0.5, lineHeight: 1.3 }}>
            for {useWords[blade.kept_for]}
            <br />
            {saw ? <b>on {saw}</b> : blade.hangs}
          </Box>
          <Condition condition={blade.condition} />
        </Box>
      </Box>
    </Box>
  );
}
