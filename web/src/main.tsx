import '@mantine/core/styles.css';
import './app/look.css';
import './app/rhythm.css';
import './app/paper.css';
import { MantineProvider } from '@mantine/core';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './app/App';
import { newClient } from './app/queryClient';
import { Stumbled } from './app/Stumbled';
import { theme } from './app/theme';
import { Told } from './ui/Told';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={newClient()}>
        <BrowserRouter>
          <Stumbled of="frame">
            <App />
            <Told />
          </Stumbled>
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);
