import './app/schemas';
import '../../.tmp/fonts/fonts.css';
import '@mantine/core/styles/baseline.css';
import '@mantine/core/styles/default-css-variables.css';
import '@mantine/core/styles/global.css';
import './app/theme.css';
import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { startTransition } from 'react';
import { createRoot } from 'react-dom/client';
import { ApiError } from './app/api';
import { Addresses } from './app/router';
import { theme } from './app/theme';
import { readAsBefore } from './app/reader';
import { registerWorker } from './offline/register';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5000,
      // A refusal stays a refusal; only a server that does not answer is asked again.
      retry: (count, error) => count < 3 && (!(error instanceof ApiError) || error.status === 0),
    },
  },
});

registerWorker();

const root = createRoot(document.getElementById('root')!);
const page = (
  <MantineProvider theme={theme} defaultColorScheme="auto">
    <QueryClientProvider client={client}>
      <Addresses />
    </QueryClientProvider>
  </MantineProvider>
);
// One after the other, and the page in slices: a weak phone answers a finger in between.
setTimeout(() => {
  readAsBefore();
  startTransition(() => root.render(page));
});
