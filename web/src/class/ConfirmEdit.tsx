import { Alert, Button, Group, Loader, Modal, Stack, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { LetterTopic, ListEditDraft, ListOutcome } from '@nimble-bell/core/api';
import { countWords, namesWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { LettersAhead } from '../ui/LettersAhead';

const TOPIC_WORDS: Record<LetterTopic, string> = {
  invitation: 'an invitation',
  update: 'the news of their plan',
  goodbye: 'word that they are off the list, and their calendar entries are taken back',
  link: 'their new link',
  reminder: 'a reminder',
  nudge: 'a nudge',
  missing: 'that nobody has rung in',
  notice: 'a notice',
  recording: 'word of a recording',
  question: 'a question from a recording',
  word: 'a word from who teaches',
  leaving: 'that recordings go before long',
  space: 'that the space for recordings ends',
};
const MOST = 8;

/** What an edit of the class list does, asked of the server before it is done; then one press. */
export function ConfirmEdit(props: {
  edit: ListEditDraft | null;
  title: string;
  action: string;
  close: () => void;
}) {
  const { edit, title, action, close } = props;
  const preview = useListPreview(edit);
  const save = useSaveEdit(preview.data?.on);
  return (
    <Modal opened={edit !== null} onClose={close} title={title} size="lg" centered>
      <Stack>
        {preview.isLoading && <Loader aria-label="Working out what it does" />}
        {preview.error && <Alert color="clay">{preview.error.message}</Alert>}
        {preview.data && <ListOutcomeView outcome={preview.data} edit={edit} />}
        <Group justify="flex-end">
          <Button variant="default" onClick={close} data-autofocus>
            Leave it as it is
          </Button>
          <Button
            disabled={!preview.data}
            loading={save.isPending}
            onClick={() => save.mutate(edit!, { onSuccess: close })}
          >
            {action}
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

/** What an edit of the class list would do, by the server: nothing is written. Null asks nothing. */
export function useListPreview(edit: ListEditDraft | null) {
  const course = useThisCourse();
  const ask = useAsk();
  return useQuery({
    queryKey: ['list-preview', course.id, edit],
    queryFn: () => ask<ListOutcome>(`/courses/${course.id}/members/preview`, 'POST', edit),
    enabled: edit !== null,
    gcTime: 0,
    retry: false,
  });
}

export function useSaveEdit(on?: string) {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (edit: ListEditDraft) => ask<ListOutcome>(`/courses/${course.id}/members`, 'POST', edit, { on }),
    ({ words }) => `${words}.`,
  );
}

export function ListOutcomeView({ outcome, edit }: { outcome: ListOutcome; edit: ListEditDraft | null }) {
  const course = useThisCourse();
  const { people, mail } = outcome;
  return (
    <div data-testid="list-outcome">
      <ul style={{ margin: '0 0 8px', paddingLeft: 18 }}>
        {people.slice(0, MOST).map((p) => (
          <li key={p.member}>
            {p.name} {p.words}
          </li>
        ))}
        {people.length > MOST && <li>and {people.length - MOST} more</li>}
      </ul>
      {mail.length === 0 && <Text size="sm">Nobody is written to.</Text>}
      {mail.map((m) => (
        <Text size="sm" key={m.topic}>
          {countWords(m.count, 'person', 'people')} {m.count === 1 ? 'gets' : 'get'} {TOPIC_WORDS[m.topic]}:{' '}
          {namesWords(m.names)}.
        </Text>
      ))}
      {mail.length > 0 && <LettersAhead path={`/courses/${course.id}/members/letters`} body={edit} />}
    </div>
  );
}
