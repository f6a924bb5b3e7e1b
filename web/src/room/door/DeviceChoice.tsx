import { Checkbox, NativeSelect, Stack, Text } from '@mantine/core';
import { chooseDevices, ownDevices, type OwnDevices } from '../live/ownDevices';
import { BehindChoice } from './BehindChoice';
import { useDevices } from './useDevices';

const KINDS = [
  { of: 'sound', kind: 'audioinput', label: 'Microphone' },
  { of: 'camera', kind: 'videoinput', label: 'Camera' },
  { of: 'speaker', kind: 'audiooutput', label: 'Loudspeaker' },
] as const;

interface Props {
  /** What is done once another is chosen. */
  changed?: (what: 'sound' | 'camera') => void;
}

/** Which microphone, camera and loudspeaker, and what is taken out of one's voice; kept on this device. */
export default function DeviceChoice({ changed }: Props) {
  const all = useDevices();
  const chosen = ownDevices.use();
  const choose = (more: Partial<OwnDevices>, what?: 'sound' | 'camera') => {
    chooseDevices(more);
    if (what) changed?.(what);
  };
  return (
    <Stack gap={8} component="section" aria-label="Your devices">
      {KINDS.map(({ of, kind, label }) => {
        // Without a name a browser has not let us know it yet.
        const found = all.filter((d) => d.kind === kind && d.deviceId && d.label);
        if (found.length < 2 && !chosen[of]) return null;
        return (
          <NativeSelect
            key={of}
            size="xs"
            label={label}
            data={[
              { value: '', label: 'As the browser has it' },
              ...found
                .filter((d) => d.deviceId !== 'default')
                .map((d) => ({ value: d.deviceId, label: d.label })),
            ]}
            value={found.some((d) => d.deviceId === chosen[of]) ? chosen[of] : ''}
            onChange={(e) => choose({ [of]: e.currentTarget.value }, of === 'speaker' ? undefined : of)}
          />
        );
      })}
      {all.some((d) => d.kind === 'videoinput') && <BehindChoice changed={() => changed?.('camera')} />}
      <Checkbox
        label="Take noise out of my voice"
        checked={chosen.noise}
        onChange={(e) => choose({ noise: e.currentTarget.checked }, 'sound')}
      />
      <Checkbox
        label="Take out what my loudspeaker says"
        checked={chosen.echo}
        onChange={(e) => choose({ echo: e.currentTarget.checked }, 'sound')}
      />
      <Text size="xs" c="dimmed">
        Music is better without either. Kept on this device.
      </Text>
    </Stack>
  );
}
