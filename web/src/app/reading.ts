import { say } from './notices';
import { useMutation } from '@tanstack/react-query';

/** The reading of one file after another: how it goes, and what it came to. */
export const useReadingOf = <Given, T>(from: (given: Given) => Promise<T>) =>
  useMutation({
    mutationFn: from,
    onError: (error) => say(error.message, 'fault'),
  });

export const bytesOf = async (file: File) => new Uint8Array(await file.arrayBuffer());
