/** A worker that draws: a plain one, as the package it loads is a script. */
export const newWorker = () => new Worker(new URL('./worker.ts', import.meta.url));
