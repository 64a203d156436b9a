import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { Toaster } from 'sonner';
import { Addresses, loadAhead } from './Addresses.tsx';
import { queryClient } from './data/api.ts';
import { useView } from './data/view.ts';
import './styles.css';

/** A word at the foot of the page, in the sheet's own paper and ink. */
const TOAST = {
  borderRadius: 3,
  boxShadow: 'none',
  fontFamily: 'inherit',
  background: 'var(--color-base-100)',
  color: 'var(--color-base-content)',
  border: '1px solid var(--color-base-content)',
};

function Words() {
  const theme = useView((view) => view.theme);
  return (
    <Toaster
      position="bottom-center"
      theme={theme === 'night' ? 'dark' : 'light'}
      toastOptions={{ style: TOAST }}
    />
  );
}

loadAhead(location.pathname);

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <BrowserRouter>
          <Addresses />
        </BrowserRouter>
        <Words />
      </QueryClientProvider>
    </StrictMode>,
  );

/** Long enough for the page to be there first, ms. */
const KEEP_AFTER = 4000;
// Kept for when there is no server; a browser that may not keep anything goes on without.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), KEEP_AFTER);
