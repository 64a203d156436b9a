import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { SharePage } from './pages/share/SharePage.tsx';
import './styles.css';

// What visitors see, at `/s/<token>`: nothing of the rest is loaded with it.

const [, , token = ''] = location.pathname.split('/');
const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={new QueryClient()}>
        <SharePage token={token} />
      </QueryClientProvider>
    </StrictMode>,
  );
