import { Alert, Group, Stack, Switch, Text } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { acquire } from '../live/devices';
import { arrival } from './arrival';
import DeviceChoice from './DeviceChoice';
import { refusedWords } from './refusedWords';
import { SoundTests } from './SoundTests';
import classes from './door.module.css';

interface Devices {
  sound: MediaStreamTrack | null;
  camera: MediaStreamTrack | null;
  faults: string[];
}

/** Opens both; what is not allowed or not there is said, and the other is tried all the same. */
async function openDevices(): Promise<Devices> {
  const opened: Devices = { sound: null, camera: null, faults: [] };
  for (const kind of ['sound', 'camera'] as const)
    try {
      opened[kind] = await acquire(kind);
    } catch (error) {
      opened.faults.push(refusedWords(kind, error as DOMException, navigator.userAgent));
    }
  return opened;
}

/** Tries microphone and camera before the door: nobody else hears or sees it. */
export default function DeviceCheck() {
  const [devices, setDevices] = useState<Devices | null>(null);
  const open = useRef<Devices | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    let gone = false;
    void openDevices().then((opened) => {
      if (gone) return stop(opened);
      open.current = opened;
      setDevices(opened);
      // It was too slow for another background: it is shown as it is, here where nobody else sees it.
      opened.camera?.addEventListener('ended', () => setTries((n) => n + 1));
    });
    return () => {
      gone = true;
      stop(open.current);
    };
  }, [tries]);
  if (!devices) return <Text size="sm">Asking for camera and microphone</Text>;
  return (
    <Stack gap="xs" align="center" component="section" aria-label="Camera and microphone">
      {devices.camera && <Mirror track={devices.camera} />}
      {devices.sound && <Level track={devices.sound} />}
      <SoundTests track={devices.sound} />
      <DeviceChoice changed={() => setTries(tries + 1)} />
      {devices.faults.map((fault) => (
        <Alert key={fault} color="clay">
          {fault}
        </Alert>
      ))}
      <Text size="sm" c="dimmed" ta="center">
        Nobody else sees or hears this. Your microphone is off when you come in.
      </Text>
      {devices.camera && <CameraOn />}
    </Stack>
  );
}

const stop = (devices: Devices | null) => {
  devices?.sound?.stop();
  devices?.camera?.stop();
};

function CameraOn() {
  const { camera } = arrival.use();
  return (
    <Switch
      label="Come in with the camera on, where the class allows it"
      checked={camera}
      onChange={(e) => arrival.set({ ...arrival.get(), camera: e.currentTarget.checked })}
    />
  );
}

function Mirror({ track }: { track: MediaStreamTrack }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = new MediaStream([track]);
  }, [track]);
  return <video ref={video} className={classes.mirror} autoPlay muted playsInline aria-label="Your camera" />;
}

/** How loud the microphone is, by a bar and in a word. */
function Level({ track }: { track: MediaStreamTrack }) {
  const bar = useRef<HTMLMeterElement>(null);
  const [heard, setHeard] = useState(false);
  useEffect(() => {
    const context = new AudioContext();
    const analyser = context.createAnalyser();
    context.createMediaStreamSource(new MediaStream([track])).connect(analyser);
    const samples = new Float32Array(analyser.fftSize);
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples);
      const loud = Math.min(1, Math.max(...samples.map(Math.abs)) * 2);
      if (bar.current) bar.current.value = loud;
      if (loud > 0.06) setHeard(true);
    }, 80);
    return () => {
      clearInterval(timer);
      void context.close();
    };
  }, [track]);
  return (
    <Group gap="xs">
      <meter ref={bar} min={0} max={1} aria-label="How loud you are" />
      <Text size="sm" role="status">
        {heard ? 'Your microphone hears something.' : 'Say something to try the microphone.'}
      </Text>
    </Group>
  );
}
