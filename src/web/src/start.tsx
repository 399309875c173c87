import { i18n } from '@lingui/core';
import { I18nProvider } from '@lingui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './app/App';
import { ScreenBoundary } from './app/ScreenBoundary';
import { watchVersions } from './app/newVersion';
import { reportFault } from './sync/faults';
import { syncState } from './sync/syncState';

void watchVersions(() => syncState().onlyInMemory > 0).catch((problem: unknown) =>
  reportFault('The service worker could not be started.', problem),
);

const queries = new QueryClient({
  defaultOptions: { queries: { networkMode: 'always', retry: false, staleTime: 2_000 } },
});

createRoot(document.getElementById('root')!).render(
  <I18nProvider i18n={i18n}>
    <QueryClientProvider client={queries}>
      <BrowserRouter useTransitions={false}>
        <ScreenBoundary screen="all">
          <App />
        </ScreenBoundary>
      </BrowserRouter>
    </QueryClientProvider>
  </I18nProvider>,
);
