import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';
import { place } from '../api/place';
import { Choose } from '../stations/choose/Choose';
import { Broken, Nowhere } from '../ui/Broken';
import { Moved } from './Moved';
import { moved } from './places';
import { Sheet } from './Sheet';

/** A page that is fetched when it is asked for. */
const page = <N extends string>(load: () => Promise<Record<N, ComponentType>>, name: N) => ({
  lazy: async () => ({ Component: (await load())[name] }),
});

/** Choose is the first page and comes with it; the rest is fetched when it is asked for. */
export const router = createBrowserRouter(
  [
    {
      path: '/',
      element: <Sheet />,
      errorElement: <Broken />,
      hydrateFallbackElement: <></>,
      children: [
        {
          // A page that breaks leaves the frame standing, so that one can go on.
          errorElement: <Broken />,
          children: [
            { index: true, element: <Choose /> },
            {
              path: 'card',
              ...page(() => import('../stations/choose/Card'), 'Card'),
            },
            {
              path: 'run',
              ...page(() => import('../stations/run/Run'), 'Run'),
            },
            {
              path: 'trial/new',
              ...page(() => import('../stations/run/NewTrial'), 'NewTrial'),
            },
            {
              path: 'trial/:id',
              ...page(() => import('../stations/run/Trial'), 'Trial'),
            },
            {
              path: 'jobs',
              ...page(() => import('../stations/jobs/pages'), 'Jobs'),
            },
            {
              path: 'jobs/new',
              ...page(() => import('../stations/jobs/pages'), 'NewJob'),
            },
            {
              path: 'jobs/:id',
              ...page(() => import('../stations/jobs/pages'), 'JobPage'),
            },
            {
              path: 'jobs/:id/next',
              ...page(() => import('../stations/jobs/pages'), 'Next'),
            },
            {
              path: 'jobs/:id/stock',
              ...page(() => import('../stations/jobs/pages'), 'StockPage'),
            },
            {
              path: 'buy',
              ...page(() => import('../stations/own/pages'), 'Own'),
            },
            {
              path: 'buy/first',
              ...page(() => import('../stations/own/pages'), 'First'),
            },
            {
              path: 'care',
              ...page(() => import('../stations/care/pages'), 'Care'),
            },
            {
              path: 'care/wash',
              ...page(() => import('../stations/care/pages'), 'NewWash'),
            },
            {
              path: 'care/wash/:id',
              ...page(() => import('../stations/care/pages'), 'Wash'),
            },
            {
              path: 'care/bath',
              ...page(() => import('../stations/care/pages'), 'NewBath'),
            },
            {
              path: 'care/slip',
              ...page(() => import('../stations/care/pages'), 'Slip'),
            },
            {
              path: 'care/money/:id',
              ...page(() => import('../stations/care/pages'), 'MoneyPage'),
            },
            {
              path: 'groove',
              ...page(() => import('../stations/groove/pages'), 'Groove'),
            },
            {
              path: 'groove/joints',
              ...page(() => import('../stations/groove/pages'), 'Joints'),
            },
            {
              path: 'special',
              ...page(() => import('../stations/special/Special'), 'Special'),
            },
            {
              path: 'groove/:id',
              ...page(() => import('../stations/groove/pages'), 'Fitting'),
            },
            {
              path: 'diagnose',
              ...page(() => import('../stations/trace/pages'), 'NewTrace'),
            },
            {
              path: 'diagnose/:id',
              ...page(() => import('../stations/trace/pages'), 'Trace'),
            },
            {
              path: 'log',
              ...page(() => import('../stations/log/Log'), 'Log'),
            },
            {
              path: 'saws',
              ...page(() => import('../stations/bench/Bench'), 'Bench'),
            },
            {
              path: 'mount/:id',
              ...page(() => import('../stations/mount/Mount'), 'Mount'),
            },
            {
              path: 'align',
              ...page(() => import('../stations/truing/Truing'), 'Truing'),
            },
            {
              path: 'align/:test',
              ...page(() => import('../stations/truing/Session'), 'Session'),
            },
            {
              path: 'blades',
              ...page(() => import('../stations/rack/Rack'), 'Rack'),
            },
            {
              path: 'blades/new',
              ...page(() => import('../stations/rack/BladeForm'), 'NewBlade'),
            },
            {
              path: 'blades/look',
              ...page(() => import('../stations/rack/Look'), 'LookPage'),
            },
            {
              path: 'blades/files',
              ...page(() => import('../stations/rack/Files'), 'Files'),
            },
            {
              path: 'blades/labels',
              ...page(() => import('../stations/rack/Labels'), 'Labels'),
            },
            {
              path: 'saws/new',
              ...page(() => import('../stations/rack/SawForm'), 'NewSaw'),
            },
            {
              path: 'saws/:id',
              ...page(() => import('../stations/rack/SawForm'), 'EditSaw'),
            },
            {
              path: 'blades/:id/edit',
              ...page(() => import('../stations/rack/BladeForm'), 'EditBlade'),
            },
            {
              path: 'blades/:id/survey',
              ...page(() => import('../stations/care/Survey'), 'SurveyPage'),
            },
            {
              path: 'blades/:id/survey/report',
              ...page(() => import('../stations/care/SurveyReport'), 'SurveyReportPage'),
            },
            {
              path: 'blades/:id/set',
              ...page(() => import('../stations/rack/SetForm'), 'SetForm'),
            },
            {
              path: 'start',
              ...page(() => import('../stations/start/Start'), 'Start'),
            },
            {
              path: 'settings',
              ...page(() => import('../stations/shop/pages'), 'ShopPage'),
            },
            {
              path: 'licenses',
              ...page(() => import('../stations/shop/pages'), 'Licences'),
            },
            {
              path: 'people',
              ...page(() => import('../stations/people/pages'), 'People'),
            },
            {
              path: 'me',
              ...page(() => import('../stations/people/pages'), 'Me'),
            },
            {
              path: 'join/:secret',
              ...page(() => import('../stations/people/pages'), 'Join'),
            },
            {
              path: 'guest/:secret',
              ...page(() => import('../stations/people/pages'), 'Guest'),
            },
            {
              path: 'blades/:id',
              ...page(() => import('../stations/rack/BladePage'), 'BladePage'),
            },
            {
              path: 'practice',
              ...page(() => import('../stations/practice/pages'), 'Shelf'),
            },
            {
              path: 'practice/:drill',
              ...page(() => import('../stations/practice/pages'), 'DrillPage'),
            },
            {
              path: 'practice/why/:why',
              ...page(() => import('../stations/practice/pages'), 'Why'),
            },
            {
              path: 'glossary',
              ...page(() => import('../stations/practice/pages'), 'Words'),
            },
            {
              path: 'contract',
              ...page(() => import('../stations/contract/Contract'), 'Contract'),
            },
            ...moved.map(([from, to]) => ({ path: `${from}/*`, element: <Moved to={to} /> })),
            { path: '*', element: <Nowhere /> },
          ],
        },
      ],
    },
  ],
  { basename: place || '/' },
);
