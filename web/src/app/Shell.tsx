import { Loader } from '@mantine/core';
import { Bar } from './Bar';

/** The frame before its page: what stands while code or data is on its way. */
export function Shell({ label = 'Loading the page' }: { label?: string }) {
  return (
    <>
      <Bar />
      <main id="content" aria-busy>
        <Loader m={60} aria-label={label} />
      </main>
    </>
  );
}
