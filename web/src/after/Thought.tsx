import { Button, Group, Paper, Radio, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { ThoughtAsked } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useAsked, useChange } from '../app/queries';

const STEPS = ['1', '2', '3', '4', '5'];

/** What one thought of a class, said once and by nobody; nothing where one is not asked. */
export default function Thought({ session, title }: { session: string; title?: string }) {
  const { data } = useAsked<ThoughtAsked>(`/sessions/${session}/thought`);
  const ask = useAsk();
  const [stars, setStars] = useState('');
  const [words, setWords] = useState('');
  const say = useChange(
    () => ask(`/sessions/${session}/thought`, 'POST', { stars: Number(stars), words }),
    () => 'Said. Thank you.',
  );
  if (!data?.asked) return null;
  if (data.given)
    return <Text size="sm">You said what you thought{title && ` of ${title}`}. Thank you.</Text>;
  return (
    <Paper
      withBorder
      p="md"
      maw={480}
      w="100%"
      component="form"
      aria-label="How was this class?"
      onSubmit={(e) => {
        e.preventDefault();
        say.mutate(undefined);
      }}
    >
      <Radio.Group
        label={title ? `How was ${title}?` : 'How was this class?'}
        description="One is “lost me”, five is “clear as a bell”. Your name is not kept with it; those who teach see it when five have answered."
        value={stars}
        onChange={setStars}
      >
        <Group mt="xs" gap="lg">
          {STEPS.map((value) => (
            <Radio key={value} value={value} label={value} />
          ))}
        </Group>
      </Radio.Group>
      <Textarea
        mt="sm"
        label="A word, if you like"
        maxLength={280}
        autosize
        minRows={2}
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      <Button type="submit" mt="sm" disabled={!stars} loading={say.isPending}>
        Say it
      </Button>
    </Paper>
  );
}
