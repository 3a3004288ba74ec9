import '@mantine/core/styles.css';
import './app/look.css';
import './app/paper.css';
import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { ApiProblem } from './api/client';
import { App } from './app/App';
import { Stumbled } from './app/Stumbled';
import { theme } from './app/theme';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => count < 2 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
      staleTime: 2_000,
    },
  },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Stumbled of="frame">
            <App />
          </Stumbled>
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);
