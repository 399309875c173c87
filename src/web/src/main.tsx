import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/literata';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './app/App';
import { applyTheme } from './app/theme';
import './styles.css';

applyTheme();
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js');

const queries = new QueryClient({
  defaultOptions: { queries: { networkMode: 'always', retry: false, staleTime: 2_000 } },
});

createRoot(document.getElementById('root')!).render(
  <QueryClientProvider client={queries}>
    <BrowserRouter>
      <App />
    </BrowserRouter>
  </QueryClientProvider>,
);
