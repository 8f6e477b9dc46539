import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.tsx';
import { GlobalStyle } from './theme/GlobalStyle.tsx';
import { ThemeProvider } from './theme/theme.tsx';

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });
const root = document.getElementById('root');
if (root !== null) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <ThemeProvider>
          <GlobalStyle />
          <App />
        </ThemeProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
