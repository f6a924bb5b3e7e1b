import { useAsk } from '../app/api';
import { useChange } from '../app/queries';

/** Brings captions in, and takes them away; what is wrong in a file is said with its line. */
export function useSendText(recording: string, language: string, done: () => void) {
  const ask = useAsk();
  const path = `/recordings/${recording}/captions/${language}`;
  const save = useChange(
    async (text: string) => {
      const answer = await ask<{ cues: number }>(path, 'PUT', { text });
      done();
      return answer;
    },
    ({ cues }) => `${cues} captions stand with the recording.`,
  );
  const remove = useChange(
    () => ask(path, 'DELETE').then(done),
    () => 'The captions are gone.',
  );
  return { save, remove };
}
