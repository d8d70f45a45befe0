import { createBrowserRouter } from 'react-router';
import { Choose } from '../stations/choose/Choose';
import { Broken, Nowhere } from './Broken';
import { Sheet } from './Sheet';

/** Choose is the first page and comes with it; the rest is fetched when it is asked for. */
export const router = createBrowserRouter([
  {
    path: '/',
    element: <Sheet />,
    errorElement: <Broken />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Choose /> },
      {
        path: 'rack',
        lazy: async () => ({ Component: (await import('../stations/rack/Rack')).Rack }),
      },
      {
        path: 'rack/:id',
        lazy: async () => ({ Component: (await import('../stations/rack/BladePage')).BladePage }),
      },
      {
        path: 'contract',
        lazy: async () => ({ Component: (await import('../stations/contract/Contract')).Contract }),
      },
      { path: '*', element: <Nowhere /> },
    ],
  },
]);
