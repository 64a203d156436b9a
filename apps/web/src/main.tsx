import { StrictMode, type ReactNode } from 'react';
import { createRoot } from 'react-dom/client';
import './styles.css';

/** What is shown at an address: visitors load the public page alone. */
async function pageAt(path: string): Promise<ReactNode> {
  const [, token] = /^\/s\/([^/]+)\/?$/.exec(path) ?? [];
  if (token !== undefined) return (await import('./publicPage.tsx')).publicPage(token);
  return (await import('./app.tsx')).app;
}

const root = document.getElementById('root');
if (root) createRoot(root).render(<StrictMode>{await pageAt(location.pathname)}</StrictMode>);

/** Long enough for the page to be there first, ms. */
const KEEP_AFTER = 4000;
// Kept for when there is no server; a browser that may not keep anything goes on without.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), KEEP_AFTER);
