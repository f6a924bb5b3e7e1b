import { Button, Group, Text } from '@mantine/core';
import type { AskedInfo } from '@nimble-bell/core/api';
import { clockWords, countWords } from '@nimble-bell/core/calendar';
import { answerWords, isRight } from '@nimble-bell/core/questions';
import { writeCsv } from '@nimble-bell/core/roster';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Bars } from '../room/tools/questions/Bars';
import { downloadCsv } from '../ui/download';
import { Panel } from '../ui/Panel';

const wordOf = (right: boolean | null) => (right === null ? '' : right ? 'right' : 'not right');

const csvOf = (asked: readonly AskedInfo[]) =>
  writeCsv(
    ['When', 'Question', 'Round', 'Who', 'Answer', 'Right'],
    asked.flatMap(({ at, question, rounds }) =>
      rounds.flatMap(({ answers, tally }, round) =>
        answers
          ? answers.map(({ name, answer }) => [
              ...[new Date(at).toISOString(), question.text, String(round + 1), name],
              ...[answerWords(question, answer), wordOf(isRight(question, answer))],
            ])
          : [
              [
                ...[new Date(at).toISOString(), question.text, String(round + 1), ''],
                ...[`${tally.answered} answers without names`, ''],
              ],
            ],
      ),
    ),
  );

/** What a class was asked, and what it said; nothing where nothing was asked. */
export function AskedPanel({ session, name, zone }: { session: string; name: string; zone: string }) {
  const { data } = useAsked<AskedInfo[]>(`/sessions/${session}/asked`);
  if (!data?.length) return null;
  return (
    <Panel
      title="Asked"
      about={countWords(data.length, 'question')}
      action={
        <Button variant="default" onClick={() => downloadCsv(`Answers in ${name}.csv`, csvOf(data))}>
          Download as CSV
        </Button>
      }
    >
      {data.map((asked) => (
        <One key={asked.id} asked={asked} zone={zone} />
      ))}
    </Panel>
  );
}

function One({ asked: { at, question, rounds }, zone }: { asked: AskedInfo; zone: string }) {
  const course = useThisCourse();
  const ask = useAsk();
  const keep = useChange(
    () => ask(`/courses/${course.id}/questions`, 'POST', { question, part: '', seconds: null }),
    () => 'It stands with the questions of the course now.',
  );
  const last = rounds.at(-1)!;
  return (
    <section aria-label={question.text || 'Asked aloud'}>
      <Group justify="space-between" align="flex-start" mt="sm">
        <Text fw={650}>
          {question.text || 'What was asked aloud'}{' '}
          <Text span size="sm" c="dimmed">
            {clockWords(at, zone)}
            {rounds.length > 1 && `, ${rounds.length} rounds`}
          </Text>
        </Text>
        {question.text && (
          <Button
            size="compact-sm"
            variant="subtle"
            loading={keep.isPending}
            onClick={() => keep.mutate(undefined)}
          >
            Keep for another class
          </Button>
        )}
      </Group>
      <Bars
        question={question}
        tally={last.tally}
        before={rounds.at(-2)?.tally ?? null}
        own={null}
        right={question.right}
      />
      {last.answers && last.answers.length > 0 && (
        <details>
          <summary>Who answered what</summary>
          <ul>
            {last.answers.map(({ member, name, answer }) => (
              <li key={member}>
                {name}: {answerWords(question, answer)}
                {isRight(question, answer) && ' (right)'}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
