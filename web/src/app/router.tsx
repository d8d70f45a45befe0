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
      {
        // A page that breaks leaves the frame standing, so that one can go on.
        errorElement: <Broken />,
        children: [
          { index: true, element: <Choose /> },
          {
            path: 'card',
            lazy: async () => ({ Component: (await import('../stations/choose/Card')).Card }),
          },
          {
            path: 'run',
            lazy: async () => ({ Component: (await import('../stations/run/Run')).Run }),
          },
          {
            path: 'trial/new',
            lazy: async () => ({ Component: (await import('../stations/run/NewTrial')).NewTrial }),
          },
          {
            path: 'trial/:id',
            lazy: async () => ({ Component: (await import('../stations/run/Trial')).Trial }),
          },
          {
            path: 'care',
            lazy: async () => ({ Component: (await import('../stations/care/Care')).Care }),
          },
          {
            path: 'care/wash',
            lazy: async () => ({ Component: (await import('../stations/care/NewWash')).NewWash }),
          },
          {
            path: 'care/wash/:id',
            lazy: async () => ({ Component: (await import('../stations/care/Wash')).Wash }),
          },
          {
            path: 'care/bath',
            lazy: async () => ({ Component: (await import('../stations/care/NewBath')).NewBath }),
          },
          {
            path: 'care/slip',
            lazy: async () => ({ Component: (await import('../stations/care/Slip')).Slip }),
          },
          {
            path: 'care/money/:id',
            lazy: async () => ({ Component: (await import('../stations/care/MoneyPage')).MoneyPage }),
          },
          {
            path: 'groove',
            lazy: async () => ({ Component: (await import('../stations/groove/Groove')).Groove }),
          },
          {
            path: 'groove/joints',
            lazy: async () => ({ Component: (await import('../stations/groove/Joints')).Joints }),
          },
          {
            path: 'groove/:id',
            lazy: async () => ({ Component: (await import('../stations/groove/Fitting')).Fitting }),
          },
          {
            path: 'trace',
            lazy: async () => ({ Component: (await import('../stations/trace/NewTrace')).NewTrace }),
          },
          {
            path: 'trace/:id',
            lazy: async () => ({ Component: (await import('../stations/trace/Trace')).Trace }),
          },
          {
            path: 'log',
            lazy: async () => ({ Component: (await import('../stations/log/Log')).Log }),
          },
          {
            path: 'bench',
            lazy: async () => ({ Component: (await import('../stations/bench/Bench')).Bench }),
          },
          {
            path: 'mount/:id',
            lazy: async () => ({ Component: (await import('../stations/mount/Mount')).Mount }),
          },
          {
            path: 'true',
            lazy: async () => ({ Component: (await import('../stations/truing/Truing')).Truing }),
          },
          {
            path: 'true/:test',
            lazy: async () => ({ Component: (await import('../stations/truing/Session')).Session }),
          },
          {
            path: 'rack',
            lazy: async () => ({ Component: (await import('../stations/rack/Rack')).Rack }),
          },
          {
            path: 'rack/new',
            lazy: async () => ({ Component: (await import('../stations/rack/BladeForm')).NewBlade }),
          },
          {
            path: 'rack/files',
            lazy: async () => ({ Component: (await import('../stations/rack/Files')).Files }),
          },
          {
            path: 'rack/labels',
            lazy: async () => ({ Component: (await import('../stations/rack/Labels')).Labels }),
          },
          {
            path: 'rack/saws/new',
            lazy: async () => ({ Component: (await import('../stations/rack/SawForm')).NewSaw }),
          },
          {
            path: 'rack/saws/:id',
            lazy: async () => ({ Component: (await import('../stations/rack/SawForm')).EditSaw }),
          },
          {
            path: 'rack/:id/edit',
            lazy: async () => ({ Component: (await import('../stations/rack/BladeForm')).EditBlade }),
          },
          {
            path: 'rack/:id/survey',
            lazy: async () => ({ Component: (await import('../stations/care/Survey')).SurveyPage }),
          },
          {
            path: 'rack/:id/survey/report',
            lazy: async () => ({
              Component: (await import('../stations/care/SurveyReport')).SurveyReportPage,
            }),
          },
          {
            path: 'rack/:id/set',
            lazy: async () => ({ Component: (await import('../stations/rack/SetForm')).SetForm }),
          },
          {
            path: 'start',
            lazy: async () => ({ Component: (await import('../stations/start/Start')).Start }),
          },
          {
            path: 'shop',
            lazy: async () => ({ Component: (await import('../stations/shop/Shop')).ShopPage }),
          },
          {
            path: 'rack/:id',
            lazy: async () => ({ Component: (await import('../stations/rack/BladePage')).BladePage }),
          },
          {
            path: 'words',
            lazy: async () => ({ Component: (await import('../stations/words/Words')).Words }),
          },
          {
            path: 'contract',
            lazy: async () => ({ Component: (await import('../stations/contract/Contract')).Contract }),
          },
          { path: '*', element: <Nowhere /> },
        ],
      },
    ],
  },
]);
