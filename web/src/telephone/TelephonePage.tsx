import { Button, Container, Group, Select, Text, TextInput, Title, UnstyledButton } from '@mantine/core';
import { IconPhone, IconPhoneOff } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { isKey, TELEPHONE_KEYS, type TelephoneKey } from '@nimble-bell/core/telephone';
import { Bar } from '../app/Bar';
import { stopOf, useAsked } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Empty } from '../ui/Panel';
import { Telephone, type TelephoneState } from './telephone';
import classes from './telephone.module.css';

/** What a key does in class, beneath its number. */
const IN_CLASS: Partial<Record<TelephoneKey, string>> = {
  '1': 'hand',
  '2': 'microphone',
  '3': 'what I may',
  '4': 'who speaks',
  '0': 'the keys',
  '*': 'begin again',
};
const SAID_AT = { down: 'On the hook', rings: 'Ringing', talks: 'On the line' } as const;

/** The stand-in telephone: calls a class as any telephone would, with its keys and its sound. */
export function TelephonePage() {
  const lines = useAsked<string[]>('/telephone');
  const stop = stopOf(lines);
  if (stop) return <Fault error={stop} />;
  return (
    <>
      <Bar />
      <Container size="sm" py="lg" component="main" id="content">
        <Title order={1} size="h2">
          A telephone
        </Title>
        <Text c="dimmed" mb="md">
          A stand-in for the telephone network. The number and a PIN stand on a student&apos;s page and in
          their invitation.
        </Text>
        {lines.data?.length === 0 && <Empty>No course has a telephone line yet.</Empty>}
        {lines.data && lines.data.length > 0 && <Handset lines={lines.data} />}
      </Container>
    </>
  );
}

function Handset({ lines }: { lines: readonly string[] }) {
  const [telephone] = useState(() => new Telephone());
  const state = telephone.state.use();
  const [number, setNumber] = useState(lines[0]!);
  const [caller, setCaller] = useState('+1 902 555 0199');
  useEffect(() => () => telephone.hangUp(), [telephone]);
  useEffect(() => {
    const typed = (e: KeyboardEvent) => {
      const field = e.target instanceof HTMLInputElement;
      if (!field && !e.ctrlKey && !e.metaKey && isKey(e.key)) telephone.press(e.key);
    };
    window.addEventListener('keydown', typed);
    return () => window.removeEventListener('keydown', typed);
  }, [telephone]);
  const down = state.at === 'down';
  return (
    <div className={classes.desk}>
      <section aria-label="The call">
        <Select
          label="Number to call"
          data={[...lines]}
          value={number}
          onChange={(v) => v && setNumber(v)}
          allowDeselect={false}
          readOnly={!down}
        />
        <TextInput
          label="From the number"
          description="Empty: withheld"
          mt="sm"
          value={caller}
          onChange={(e) => setCaller(e.currentTarget.value)}
          readOnly={!down}
        />
        <Group mt="md">
          {down ? (
            <Button
              leftSection={<IconPhone size={18} />}
              onClick={() => telephone.dial(number, caller.trim() || null)}
            >
              Call
            </Button>
          ) : (
            <Button color="clay" leftSection={<IconPhoneOff size={18} />} onClick={() => telephone.hangUp()}>
              Hang up
            </Button>
          )}
          <Text role="status">{SAID_AT[state.at]}</Text>
        </Group>
        <Said state={state} />
      </section>
      <Keys press={(key) => telephone.press(key)} keyed={state.keyed} disabled={down} />
    </div>
  );
}

function Said({ state: { said } }: { state: TelephoneState }) {
  return (
    <div className={classes.said}>
      <Text size="sm" fw={600} component="h2">
        The line says
      </Text>
      <ol aria-live="polite">
        {said.map((words, i) => (
          <li key={`${i}-${words}`}>{words}</li>
        ))}
      </ol>
      {said.length === 0 && (
        <Text size="sm" c="dimmed">
          Nothing yet. The same is spoken.
        </Text>
      )}
    </div>
  );
}

interface KeysProps {
  press: (key: TelephoneKey) => void;
  keyed: string;
  disabled: boolean;
}

function Keys({ press, keyed, disabled }: KeysProps) {
  return (
    <section className={classes.handset} aria-label="Keys">
      <output className={classes.keyed} aria-label="Keyed">
        {keyed || ' '}
      </output>
      <div className={classes.keys}>
        {TELEPHONE_KEYS.map((key) => (
          <UnstyledButton
            key={key}
            className={classes.key}
            disabled={disabled}
            onClick={() => press(key)}
            aria-label={IN_CLASS[key] ? `${key}, ${IN_CLASS[key]}` : key}
          >
            <span>{key}</span>
            <small>{IN_CLASS[key] ?? ''}</small>
          </UnstyledButton>
        ))}
      </div>
    </section>
  );
}
