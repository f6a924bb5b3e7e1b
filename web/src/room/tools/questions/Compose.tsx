import { Button, Group, NativeSelect, Stack, Switch, Text } from '@mantine/core';
import { useState } from 'react';
import type { Question, QuestionKind } from '@nimble-bell/core/questions';
import { CLASS, frontOf, slidesAt } from '@nimble-bell/core/room';
import { useInside, useRoom, type Inside } from '../../live/useRoom';
import { Prepared } from './Prepared';
import { Written } from './Written';
import { TIMES } from './times';

/** What is asked aloud, and answered on the page: one press. */
const ALOUD: readonly { word: string; kind: QuestionKind; options: number }[] = [
  { word: 'Yes or no', kind: 'yesNo', options: 0 },
  { word: 'True or false', kind: 'trueFalse', options: 0 },
  { word: 'A to D', kind: 'one', options: 4 },
  { word: 'A to E', kind: 'one', options: 5 },
  { word: 'A number', kind: 'number', options: 0 },
  { word: 'In words', kind: 'words', options: 0 },
  { word: 'A place on it', kind: 'point', options: 0 },
];

/** Whether the class has something before it on which a place can be asked for. */
const selectPointed = ({ room }: Inside) => {
  const front = frontOf(room, CLASS);
  return front === 'board' || (front === 'slides' && slidesAt(room, CLASS) !== null);
};

/** A question: asked aloud and answered here, or written as one would write it down. */
export default function Compose({ close }: { close: () => void }) {
  const { send } = useRoom();
  const [anonymous, setAnonymous] = useState(false);
  const [live, setLive] = useState(false);
  const [time, setTime] = useState('');
  const ask = (question: Omit<Question, 'anonymous'>) => {
    close();
    const seconds = time ? Number(time) : null;
    void send({ type: 'ask', question: { ...question, anonymous }, seconds, live });
  };
  return (
    <Stack gap="sm">
      <Aloud ask={ask} />
      <Prepared
        ask={({ id, question, seconds }) => {
          close();
          void send({ type: 'ask', question, seconds, live, prepared: id });
        }}
      />
      <Written label="Or written" does="Ask the class" give={ask} />
      <Group gap="md">
        <Switch
          size="xs"
          label="Without names"
          checked={anonymous}
          onChange={(e) => setAnonymous(e.currentTarget.checked)}
        />
        <Switch
          size="xs"
          label="Who has answered sees the others’"
          checked={live}
          onChange={(e) => setLive(e.currentTarget.checked)}
        />
      </Group>
      <NativeSelect
        size="xs"
        label="Time to answer"
        data={TIMES}
        value={time}
        onChange={(e) => setTime(e.currentTarget.value)}
      />
    </Stack>
  );
}

function Aloud({ ask }: { ask: (question: Omit<Question, 'anonymous'>) => void }) {
  const pointed = useInside(selectPointed);
  return (
    <div>
      <Text size="sm" fw={650} mb={4}>
        Asked aloud, answered here
      </Text>
      <Group gap={6}>
        {ALOUD.filter((a) => a.kind !== 'point' || pointed).map(({ word, kind, options }, i) => (
          <Button
            key={word}
            size="compact-sm"
            variant="light"
            autoFocus={i === 0}
            onClick={() =>
              ask({ text: '', kind, options: Array.from({ length: options }, () => ''), right: null })
            }
          >
            {word}
          </Button>
        ))}
      </Group>
    </div>
  );
}
