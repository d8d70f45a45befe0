/** The application, once the language is there. */
import { i18n } from './i18n';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { ProblemError } from './api/client';
import { askOrRecall } from './api/fallback';
import { I18nProvider } from '@lingui/react';
import { PreferencesProvider } from './ui/preferences';
import { router } from './app/router';
import { theme } from './drawings/theme';

// The content policy lets in only styles that carry this answer's nonce.
const nonce = document.querySelector('meta[property="csp-nonce"]')?.getAttribute('content') ?? undefined;
const styles = createCache({ key: 'c', nonce });

const queries = new QueryClient({
  defaultOptions: {
    mutations: { networkMode: 'always' },
    queries: {
      staleTime: 30_000,
      networkMode: 'always', // the server may stand on this machine; it is asked, not the network card
      persister: (ask, c, query) => askOrRecall(ask, c, query),
      // A refusal stays a refusal; only silence is worth asking again.
      retry: (times, error) => times < 2 && !(error instanceof ProblemError && error.status < 500),
    },
  },
});

createRoot(document.getElementById('root')!).render(
  <CacheProvider value={styles}>
    <ThemeProvider theme={theme} defaultMode="system" noSsr>
      <CssBaseline enableColorScheme />
      <QueryClientProvider client={queries}>
        <I18nProvider i18n={i18n}>
          <PreferencesProvider>
            <RouterProvider router={router} />
          </PreferencesProvider>
        </I18nProvider>
      </QueryClientProvider>
    </ThemeProvider>
  </CacheProvider>,
);
