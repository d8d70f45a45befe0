/**
 * The frame of every page: a drawing sheet with its title block along the lower
 * edge, where a thumb reaches. The block holds the few places of the shop, what
 * waits to be sent, and, under the shop's name, the rest.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Outlet, ScrollRestoration, useLocation } from 'react-router';
import { onSignedOut } from '../api/client';
import { useSession } from '../api/session';
import { useShop } from '../api/shop';
import { useArrival } from './arrival';
import { PlaceBar } from './PlaceBar';

export function Sheet() {
  const session = useSession().data;
  const cache = useQueryClient();
  useEffect(() => onSignedOut(() => void cache.invalidateQueries({ queryKey: ['session'] })), [cache]);
  const shop = useShop();
  const { pathname } = useLocation();
  const sheet = useRef<HTMLDivElement>(null);
  useArrival(sheet, pathname);
  const later = useLater();
  const out = session?.state === 'out';
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
        component="a"
        href="#sheet"
        onClick={(e) => {
          e.preventDefault(); // the address stays what it is
          sheet.current?.focus();
        }}
        sx={{
          position: 'absolute',
          '@media print': { display: 'none' },
          zIndex: 10,
          top: 8,
          left: 8,
          px: 2,
          py: 1.5,
          bgcolor: 'background.paper',
          border: '2px solid',
          '&:not(:focus)': {
            clipPath: 'inset(50%)',
            width: '1px',
            height: '1px',
            p: 0,
            border: 0,
            overflow: 'hidden',
          },
        }}
      >
        {t`Skip to content`}
      </Box>
      <Box
        id="sheet"
        ref={sheet}
        tabIndex={-1}
        sx={{
          flex: 1,
          minHeight: 0,
          overflow: 'auto',
          scrollPaddingBottom: '64px', // what has the keyboard does not hide under an action bar
          outline: 'none',
          '@media print': { overflow: 'visible' },
        }}
      >
        {out && !/^\/(join|guest)\//.test(pathname) ? (
          <Suspense fallback={null}>
            <Door session={session} />
          </Suspense>
        ) : (
          <Outlet />
        )}
      </Box>
      {session?.device && (
        <Suspense fallback={null}>
          <Hands session={session} />
        </Suspense>
      )}
      {later && (
        <Suspense fallback={null}>
          <Said />
        </Suspense>
      )}
      {!out && <PlaceBar shop={shop.data?.name} />}
      <ScrollRestoration />
    </Box>
  );
}

const Door = lazy(() => import('../stations/people/pages').then((m) => ({ default: m.Door })));
const Hands = lazy(() => import('./later').then((m) => ({ default: m.Hands })));

// Nothing of it is needed before the first answer stands.
const Said = lazy(() => import('./later').then((m) => ({ default: m.Said })));

/** Whether the first page has had its time. */
function useLater() {
  const [later, setLater] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => {
      setLater(true);
      // Not every browser says when it is idle.
      if ('requestIdleCallback' in window) requestIdleCallback(() => void ahead());
      else setTimeout(() => void ahead(), 2000);
    }, 900);
    return () => clearTimeout(timer);
  }, []);
  return later;
}

/** The pages that are opened next more often than not, so that they open at once. */
const ahead = () =>
  Promise.all([
    import('../stations/run/Run'),
    import('../stations/bench/Bench'),
    import('../stations/rack/Rack'),
    import('../stations/trace/NewTrace'),
    import('../stations/jobs/pages'),
  ]).catch(() => undefined); // they are asked for again when they are opened
