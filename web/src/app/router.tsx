import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';
import { place } from '../api/place';
import { Choose } from '../stations/choose/Choose';
import { Broken, Nowhere } from '../ui/Broken';
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
              path: 'own',
              ...page(() => import('../stations/own/pages'), 'Own'),
            },
            {
              path: 'own/first',
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
              path: 'trace',
              ...page(() => import('../stations/trace/pages'), 'NewTrace'),
            },
            {
              path: 'trace/:id',
              ...page(() => import('../stations/trace/pages'), 'Trace'),
            },
            {
              path: 'log',
              ...page(() => import('../stations/log/Log'), 'Log'),
            },
            {
              path: 'bench',
              ...page(() => import('../stations/bench/Bench'), 'Bench'),
            },
            {
              path: 'mount/:id',
              ...page(() => import('../stations/mount/Mount'), 'Mount'),
            },
            {
              path: 'true',
              ...page(() => import('../stations/truing/Truing'), 'Truing'),
            },
            {
              path: 'true/:test',
              ...page(() => import('../stations/truing/Session'), 'Session'),
            },
            {
              path: 'rack',
              ...page(() => import('../stations/rack/Rack'), 'Rack'),
            },
            {
              path: 'rack/new',
              ...page(() => import('../stations/rack/BladeForm'), 'NewBlade'),
            },
            {
              path: 'rack/look',
              ...page(() => import('../stations/rack/Look'), 'LookPage'),
            },
            {
              path: 'rack/files',
              ...page(() => import('../stations/rack/Files'), 'Files'),
            },
            {
              path: 'rack/labels',
              ...page(() => import('../stations/rack/Labels'), 'Labels'),
            },
            {
              path: 'rack/saws/new',
              ...page(() => import('../stations/rack/SawForm'), 'NewSaw'),
            },
            {
              path: 'rack/saws/:id',
              ...page(() => import('../stations/rack/SawForm'), 'EditSaw'),
            },
            {
              path: 'rack/:id/edit',
              ...page(() => import('../stations/rack/BladeForm'), 'EditBlade'),
            },
            {
              path: 'rack/:id/survey',
              ...page(() => import('../stations/care/Survey'), 'SurveyPage'),
            },
            {
              path: 'rack/:id/survey/report',
              ...page(() => import('../stations/care/SurveyReport'), 'SurveyReportPage'),
            },
            {
              path: 'rack/:id/set',
              ...page(() => import('../stations/rack/SetForm'), 'SetForm'),
            },
            {
              path: 'start',
              ...page(() => import('../stations/start/Start'), 'Start'),
            },
            {
              path: 'shop',
              ...page(() => import('../stations/shop/pages'), 'ShopPage'),
            },
            {
              path: 'licences',
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
              path: 'rack/:id',
              ...page(() => import('../stations/rack/BladePage'), 'BladePage'),
            },
            {
              path: 'learn',
              ...page(() => import('../stations/practice/pages'), 'Shelf'),
            },
            {
              path: 'learn/:drill',
              ...page(() => import('../stations/practice/pages'), 'DrillPage'),
            },
            {
              path: 'learn/why/:why',
              ...page(() => import('../stations/practice/pages'), 'Why'),
            },
            {
              path: 'words',
              ...page(() => import('../stations/practice/pages'), 'Words'),
            },
            {
              path: 'contract',
              ...page(() => import('../stations/contract/Contract'), 'Contract'),
            },
            { path: '*', element: <Nowhere /> },
          ],
        },
      ],
    },
  ],
  { basename: place || '/' },
);
