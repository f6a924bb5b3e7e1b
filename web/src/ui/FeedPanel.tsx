import { Button } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { useAsk } from '../app/api';
import type { Feed } from './FeedAddress';
import { Panel } from './Panel';

// Its fields come with it, when it is asked for.
const FeedAddress = lazy(() => import('./FeedAddress'));

/** A calendar to download or subscribe to, by a secret address that can be replaced. */
export function FeedPanel({ course, about }: { course: string | null; about: string }) {
  const ask = useAsk();
  const client = useQueryClient();
  const [shown, setShown] = useState(false);
  const key = ['feed', course];
  const feed = useQuery({
    queryKey: key,
    queryFn: () => ask<Feed>('/feeds', 'POST', { course }),
    enabled: shown,
    staleTime: Infinity,
  });

  return (
    <Panel title="Your calendar" about={about}>
      {!shown ? (
        <Button variant="default" onClick={() => setShown(true)}>
          Show the address
        </Button>
      ) : (
        feed.data && (
          <Suspense>
            <FeedAddress
              feed={feed.data}
              set={(next) => client.setQueryData(key, next)}
              path="/feeds"
              about={{ course }}
              opens="Whoever has it can read these times."
              file="Download as .ics"
            />
          </Suspense>
        )
      )}
    </Panel>
  );
}
