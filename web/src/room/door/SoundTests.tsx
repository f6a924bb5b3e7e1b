import { Button, Group, Text } from '@mantine/core';
import { useState } from 'react';
import { ownDevices } from '../live/ownDevices';
import { loudspeakerIsHeard } from './echo';

const SAMPLE_MS = 3000;

/** Plays it on the loudspeaker that was chosen; resolves when it is over. */
async function play(source: string): Promise<void> {
  const audio = new Audio(source);
  await audio.setSinkId?.(ownDevices.get().speaker).catch(() => {});
  await new Promise<void>((resolve, reject) => {
    audio.onended = () => resolve();
    audio.onerror = () => reject(new Error('It could not be played.'));
    audio.play().catch(reject);
  });
}

/** Three seconds of what a microphone hears, as an address to be played. */
async function sample(track: MediaStreamTrack): Promise<string> {
  const recorder = new MediaRecorder(new MediaStream([track]));
  const parts: Blob[] = [];
  recorder.ondataavailable = (e) => parts.push(e.data);
  const done = new Promise((resolve) => (recorder.onstop = resolve));
  recorder.start();
  await new Promise((resolve) => setTimeout(resolve, SAMPLE_MS));
  recorder.stop();
  await done;
  return URL.createObjectURL(new Blob(parts, { type: recorder.mimeType }));
}

/** A bell, as a sound file of its own: two partials that fade. */
function bell(): string {
  const rate = 22_050;
  const samples = Array.from({ length: rate }, (_, i) => {
    const t = i / rate;
    const sound = Math.sin(2 * Math.PI * 660 * t) + 0.5 * Math.sin(2 * Math.PI * 1782 * t);
    return Math.round(9000 * sound * Math.exp(-4 * t));
  });
  const file = new DataView(new ArrayBuffer(44 + 2 * rate));
  const text = (at: number, said: string) =>
    [...said].forEach((c, i) => file.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  file.setUint32(4, 36 + 2 * rate, true);
  text(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 1, true);
  file.setUint16(22, 1, true);
  file.setUint32(24, rate, true);
  file.setUint32(28, 2 * rate, true);
  file.setUint16(32, 2, true);
  file.setUint16(34, 16, true);
  text(36, 'data');
  file.setUint32(40, 2 * rate, true);
  samples.forEach((s, i) => file.setInt16(44 + 2 * i, s, true));
  return URL.createObjectURL(new Blob([file], { type: 'audio/wav' }));
}

/** Hears oneself back, hears a bell, and whether the microphone hears the loudspeaker. */
export function SoundTests({ track }: { track: MediaStreamTrack | null }) {
  const [busy, setBusy] = useState('');
  const [said, setSaid] = useState('');
  const attempt = (name: string, work: () => Promise<string>) => async () => {
    setBusy(name);
    setSaid('');
    setSaid(await work().catch((error: Error) => error.message));
    setBusy('');
  };
  const back = attempt('back', async () => {
    const source = await sample(track!);
    setSaid('This is how you are heard.');
    await play(source);
    URL.revokeObjectURL(source);
    return '';
  });
  const ring = attempt('bell', async () => {
    const source = bell();
    await play(source);
    URL.revokeObjectURL(source);
    return 'If you heard no bell, choose another loudspeaker, or turn it up.';
  });
  const echo = attempt('echo', async () =>
    (await loudspeakerIsHeard(ownDevices.get().sound))
      ? 'Your microphone hears your loudspeaker. Wear headphones, or leave “Take out what my loudspeaker says” on.'
      : 'Your microphone does not hear your loudspeaker.',
  );
  const test = (name: string, word: string, press: () => Promise<void>) => (
    <Button
      size="compact-sm"
      variant="default"
      loading={busy === name}
      disabled={busy !== '' && busy !== name}
      onClick={() => void press()}
    >
      {word}
    </Button>
  );
  return (
    <>
      <Group gap={6} justify="center">
        {track && test('back', 'Hear three seconds of me', back)}
        {test('bell', 'Ring a bell', ring)}
        {track && test('echo', 'Does it hear the loudspeaker?', echo)}
      </Group>
      <Text size="sm" role="status" ta="center" mih={20}>
        {busy === 'back' && !said ? 'Speak now: three seconds.' : said}
      </Text>
    </>
  );
}
