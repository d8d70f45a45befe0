/** The title block: places, the rooms of the one that one is in, units, light, and the shop's name with the rest. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import useMediaQuery from '@mui/material/useMediaQuery';
import { lazy, Suspense, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useWaiting } from '../api/keep';
import { Popover } from '../ui/Floating';
import { Light, Units } from './Settings';
import type * as Later from './later';
import { placeOf, places, roomOf } from './places';
import { usePhone } from '../ui/phone';
import { cutFace } from '../drawings/theme';

export const BAR = 56; // its height

const ROOMY = '(min-width: 1160px)'; // where the rooms stand beside their place

export function PlaceBar({ shop }: { shop: string | undefined }) {
  const { pathname, search } = useLocation();
  const roomy = useMediaQuery(ROOMY);
  const narrow = usePhone(); // what waits stands in a row of its own
  const here = placeOf(pathname);
  return (
    <>
      {narrow && <WaitingCell />}
      <Box
        component="nav"
        aria-label={t`Pages and settings`}
        sx={{
          height: BAR,
          flex: 'none',
          display: 'flex',
          '@media print': { display: 'none' },
          borderTop: '2px solid',
          borderColor: 'text.primary',
          bgcolor: 'background.paper',
          '& > *': { borderRight: '1px solid', borderColor: 'divider' },
          '& > *:last-child': { borderRight: 0 },
        }}
      >
        {places.map((p) => (
          <Box key={p.to} sx={{ display: 'flex', flex: { xs: '1 1 0', sm: 'none' } }}>
            <PlaceLink to={p.to + search} here={p === here} current={p === here && p.to === pathname}>
              {p.name}
            </PlaceLink>
            {roomy && p === here && p.rooms.length > 0 && (
              <Box component="ul" sx={{ m: 0, p: 0, pr: 1, display: 'flex' }}>
                {p.rooms.map((r) => (
                  <Box component="li" key={r.to} sx={{ display: 'flex' }}>
                    <RoomLink to={r.to + search} here={r === roomOf(p, pathname)}>
                      {r.name}
                    </RoomLink>
                  </Box>
                ))}
              </Box>
            )}
          </Box>
        ))}
        <Box sx={{ flex: { xs: 0, sm: 1 }, display: { xs: 'none', sm: 'block' } }} />
        {!narrow && <WaitingCell />}
        {roomy && (
          <>
            <Units />
            <Light />
          </>
        )}
        <More shop={shop} roomy={roomy} />
      </Box>
    </>
  );
}

const Waiting = lazy(() => import('./later').then((m) => ({ default: m.Waiting })));

/** What waits for the server, where anything does. */
function WaitingCell() {
  const waiting = useWaiting();
  if (waiting.length === 0) return null;
  return (
    <Suspense fallback={null}>
      <Waiting all={waiting} />
    </Suspense>
  );
}

interface LinkProps {
  to: string;
  here: boolean;
  children: string;
}

function PlaceLink({ to, here, current, children }: LinkProps & { current: boolean }) {
  return (
    <Box
      component={Link}
      to={to}
      aria-current={current ? 'page' : here ? 'true' : undefined}
      sx={{
        flex: { xs: 1, sm: 'none' },
        minWidth: { sm: 84 },
        px: { xs: 0.5, sm: 1.75 },
        display: 'flex',
        alignItems: 'center',
        justifyContent: 'center',
        fontFamily: cutFace,
        fontSize: { xs: 17, sm: 19 },
        fontWeight: here ? 700 : 600,
        color: here ? 'text.primary' : 'text.secondary',
        textDecoration: 'none',
        boxShadow: here ? 'inset 0 4px 0 currentColor' : 'none',
        '&:focus-visible': { outlineOffset: -4 },
      }}
    >
      {children}
    </Box>
  );
}

function RoomLink({ to, here, children }: LinkProps) {
  return (
    <Box
      component={Link}
      to={to}
      aria-current={here ? 'page' : undefined}
      sx={{
        px: 1.25,
        display: 'flex',
        alignItems: 'center',
        fontSize: 16,
        fontWeight: here ? 700 : 500,
        color: here ? 'text.primary' : 'text.secondary',
        textDecoration: here ? 'underline' : 'none',
        textDecorationThickness: 2,
        textUnderlineOffset: 5,
        '&:focus-visible': { outlineOffset: -4 },
      }}
    >
      {children}
    </Box>
  );
}

/** What stands under the shop's name; where the bar is narrow, the whole plan of the shop. */
function More({ shop, roomy }: { shop: string | undefined; roomy: boolean }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [Rest, setRest] = useState<typeof Later.Rest>();
  // It opens with what is in it, or it would stand where an empty one fits.
  const open = (at: HTMLElement) =>
    void import('./later').then((m) => {
      setRest(() => m.Rest);
      setAnchor(at);
    });
  const { search } = useLocation();
  const close = () => setAnchor(null);
  return (
    <>
      <ButtonBase
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        aria-label={shop ? t`${shop}: more` : t`More`}
        onClick={(e) => open(e.currentTarget)}
        sx={{
          flex: { xs: '1 1 0', sm: '0 1 auto' },
          minWidth: 0,
          maxWidth: { sm: 280 },
          px: { xs: 0.5, sm: 2 },
          fontFamily: cutFace,
          fontSize: { xs: 17, sm: roomy ? 16 : 19 },
          fontWeight: 600,
          color: 'text.secondary',
          '&:focus-visible': { outlineOffset: -4 },
        }}
      >
        <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {roomy && shop ? shop : t`More`}
        </Box>
      </ButtonBase>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={close}
        anchorOrigin={{ vertical: 'top', horizontal: 'right' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`More pages` } as object }}
      >
        {Rest && <Rest shop={shop} roomy={roomy} search={search} onGo={close} />}
      </Popover>
    </>
  );
}
