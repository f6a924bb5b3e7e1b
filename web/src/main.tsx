import './app/schemas';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/bricolage-grotesque';
import '@mantine/core/styles.css';
import '@mantine/dates/styles.css';
import '@mantine/notifications/styles.css';
import './app/theme.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { ApiError } from './app/api';
import { router } from './app/router';
import { theme } from './app/theme';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5000,
      // A refusal stays a refusal; only a server that does not answer is asked again.
      retry: (count, error) => count < 3 && (!(error instanceof ApiError) || error.status === 0),
    },
  },
});

createRoot(document.getElementById('root')!).render(
  <MantineProvider theme={theme} defaultColorScheme="auto">
    <Notifications position="bottom-center" limit={3} />
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </MantineProvider>,
);
