import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SharePage } from './pages/share/SharePage.tsx';

/** What visitors see: nothing of the rest is loaded with it. @param token of its address */
export const publicPage = (token: string) => (
  <QueryClientProvider client={new QueryClient()}>
    <SharePage token={token} />
  </QueryClientProvider>
);
