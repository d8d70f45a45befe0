/**
 * The frame of every page: a drawing sheet with its title block along the lower
 * edge, where a thumb reaches. The block holds the stations, the units and the
 * light, as a drawing's block holds its sheet numbers and scale.
 */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useColorScheme } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { lazy, Suspense, type ReactNode } from 'react';
import { Link, NavLink, Outlet, ScrollRestoration, useLocation } from 'react-router';
import { useWaiting } from '../api/run';
import { useShop } from '../api/shop';
import { usePreferences } from './preferences';
import { cutFace } from './theme';

const stations = [
  { to: '/', name: 'Choose' },
  { to: '/groove', name: 'Groove' },
  { to: '/run', name: 'Run' },
  { to: '/bench', name: 'Bench' },
  { to: '/true', name: 'True' },
  { to: '/care', name: 'Care' },
  { to: '/trace', name: 'Trace' },
  { to: '/log', name: 'Log' },
  { to: '/rack', name: 'Rack' },
];

const BLOCK = 56;

export function Sheet() {
  const shop = useShop();
  const { search } = useLocation();
  return (
    <Box
      sx={{
        height: '100dvh',
        display: 'flex',
        flexDirection: 'column',
        bgcolor: 'background.default',
        '@media print': { height: 'auto', display: 'block' },
      }}
    >
      <Box
        id="sheet"
        sx={{ flex: 1, minHeight: 0, overflow: 'auto', '@media print': { overflow: 'visible' } }}
      >
        <Outlet />
      </Box>
      {shop.data && !shop.data.time_zone && (
        <Suspense fallback={null}>
          <ZoneOffer shop={shop.data} />
        </Suspense>
      )}
      <Box
        component="nav"
        aria-label="Stations and settings"
        sx={{
          // A phone has no room for one row: the block stands in two, of equal cells.
          height: { sm: BLOCK },
          flex: 'none',
          display: { xs: 'grid', sm: 'flex' },
          gridTemplateColumns: 'repeat(7, 1fr)',
          gridAutoRows: 44,
          '@media print': { display: 'none' },
          borderTop: '2px solid',
          borderColor: 'text.primary',
          bgcolor: 'background.paper',
          '& > *': { borderRight: '1px solid', borderColor: 'divider' },
        }}
      >
        <Box
          component={Link}
          to={`/shop${search}`}
          sx={{
            color: 'inherit',
            textDecoration: 'none',
            '&:focus-visible': { outlineOffset: -4 },
            px: 2,
            display: { xs: 'none', md: 'flex' },
            flexDirection: 'column',
            justifyContent: 'center',
            minWidth: 0,
            maxWidth: 320,
          }}
        >
          <Box sx={{ fontFamily: cutFace, fontWeight: 760, fontSize: 20, lineHeight: 1 }}>Corte</Box>
          <Box
            sx={{
              fontSize: 13,
              color: 'text.secondary',
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {shop.data?.name ?? ' '}
          </Box>
        </Box>
        <Box
          sx={{
            display: { xs: 'contents', sm: 'flex' },
            flex: 1,
            minWidth: 0,
            overflowX: 'auto',
            scrollbarWidth: 'none',
          }}
        >
          {stations.map((s) => (
            <StationLink key={s.to} to={s.to + search} end={s.to === '/'}>
              {s.name}
            </StationLink>
          ))}
        </Box>
        <WaitingCell />
        <UnitCells />
        <LightCell />
      </Box>
      <ScrollRestoration />
    </Box>
  );
}

const ZoneOffer = lazy(() => import('./ZoneOffer').then((m) => ({ default: m.ZoneOffer })));

const Waiting = lazy(() => import('./Waiting').then((m) => ({ default: m.Waiting })));

/** Cuts that wait for the server, where there are any. */
function WaitingCell() {
  const waiting = useWaiting();
  if (waiting.length === 0) return null;
  return (
    <Suspense fallback={null}>
      <Waiting cuts={waiting} />
    </Suspense>
  );
}

function StationLink({ to, end, children }: { to: string; end: boolean; children: ReactNode }) {
  return (
    <Box
      component={NavLink}
      to={to}
      end={end}
      sx={{
        px: { xs: 0, sm: 1.25, lg: 2 },
        justifyContent: 'center',
        flex: 'none',
        borderRight: '1px solid',
        borderColor: 'divider',
        display: 'flex',
        alignItems: 'center',
        fontFamily: cutFace,
        fontSize: { xs: 15, sm: 17, lg: 19 },
        fontWeight: 600,
        color: 'text.secondary',
        textDecoration: 'none',
        '&.active': { color: 'text.primary', boxShadow: 'inset 0 4px 0 currentColor' },
        '&:focus-visible': { outlineOffset: -4 },
      }}
    >
      {children}
    </Box>
  );
}

const cell = {
  px: { xs: 0, sm: 1.5 },
  minWidth: { sm: 48 },
  fontSize: 15,
  fontWeight: 600,
  color: 'text.secondary',
  '&[aria-checked=true]': { color: 'text.primary', boxShadow: 'inset 0 4px 0 currentColor' },
  '&:focus-visible': { outlineOffset: -4 },
};

function UnitCells() {
  const { units, setUnits } = usePreferences();
  return (
    <Box
      role="radiogroup"
      aria-label="Units"
      sx={{ display: { xs: 'contents', sm: 'flex' }, borderLeft: '1px solid', borderColor: 'divider' }}
    >
      {(['mm', 'in'] as const).map((u) => (
        <ButtonBase
          key={u}
          role="radio"
          aria-checked={units === u}
          aria-label={u === 'mm' ? 'Millimetres' : 'Inches'}
          onClick={() => setUnits(u)}
          sx={cell}
        >
          {u}
        </ButtonBase>
      ))}
    </Box>
  );
}

function LightCell() {
  const { mode, setMode } = useColorScheme();
  const systemDark = useMediaQuery('(prefers-color-scheme: dark)');
  const dark = mode === 'dark' || (mode === 'system' && systemDark);
  return (
    <ButtonBase
      aria-label={dark ? 'Day light' : 'Night light'}
      onClick={() => setMode(dark ? 'light' : 'dark')}
      sx={cell}
    >
      {dark ? 'Day' : 'Night'}
    </ButtonBase>
  );
}
