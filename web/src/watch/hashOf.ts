import { AskWorker } from '../app/askWorker';

/** SHA-256 of a file, in hexadecimal; worked out away from the page. */
export async function hashOf(file: Blob): Promise<string> {
  const worker = new AskWorker<Blob>(
    new Worker(new URL('./hashWorker.ts', import.meta.url), { type: 'module' }),
  );
  try {
    return await worker.ask<string>(file);
  } finally {
    worker.close();
  }
}
