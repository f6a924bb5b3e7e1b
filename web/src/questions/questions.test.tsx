import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { AskedInfo, PreparedQuestion } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { CLASS, inCourse, maren, roomTools, showInRoom } from '../testing/render';
import { AskedPanel } from '../review/AskedPanel';
import { AtHand } from '../room/tools/AtHand';
import { QuestionsPage } from './QuestionsPage';

const AT = '/api/courses/course/questions';
const prepared = (more: Partial<PreparedQuestion> = {}): PreparedQuestion => ({
  id: 'q1',
  question: { text: 'Which is it?', kind: 'one', options: ['Ebb', 'Flood'], right: 1, anonymous: false },
  ...{ part: 'Lecture', seconds: 60, askedAt: null, by: 'Maren Oduya' },
  ...more,
});
const rules = {
  course: { segments: [{ title: 'Lecture' }, { title: 'Discussion' }] },
  series: [],
  sessions: [],
};

test('a question is written once, for a part of the class, and is kept', async () => {
  answerRequests({ [AT]: [], [`POST ${AT}`]: { id: 'q' }, '/api/courses/course/rules': rules });
  inCourse({}, <QuestionsPage />);
  expect(await screen.findByText(/Nothing is prepared/)).not.toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Write a question' }));
  fireEvent.change(screen.getByLabelText('The question'), { target: { value: 'Is it ebb?' } });
  await screen.findByRole('option', { name: 'Discussion' });
  fireEvent.change(screen.getByLabelText('For which part of the class'), { target: { value: 'Discussion' } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep it for class' }));
  await waitFor(() => expect(asked.filter((a) => a.method === 'POST')).toHaveLength(1));
  expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
    question: { text: 'Is it ebb?', kind: 'yesNo', options: [], right: null, anonymous: false },
    ...{ part: 'Discussion', seconds: null },
  });
});

test('what is prepared is changed as it was written, and thrown away only when that is meant', async () => {
  answerRequests({
    [AT]: [prepared()],
    [`PUT ${AT}/q1`]: {},
    [`DELETE ${AT}/q1`]: {},
    '/api/courses/course/rules': rules,
  });
  inCourse({}, <QuestionsPage />);
  fireEvent.click(await screen.findByRole('button', { name: 'Change' }));
  const field = screen.getByLabelText('The question') as HTMLTextAreaElement;
  expect(field.value).toBe('Which is it?\nA) Ebb\nB) Flood *');
  fireEvent.change(field, { target: { value: `${field.value}\nC) Slack` } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'PUT')?.body).toMatchObject({
      question: { options: ['Ebb', 'Flood', 'Slack'], right: 1 },
      ...{ part: 'Lecture', seconds: 60 },
    }),
  );
  fireEvent.click(await screen.findByRole('button', { name: 'Throw away' }));
  expect(document.activeElement?.textContent).toBe('Keep it');
  fireEvent.click(screen.getByRole('button', { name: 'Throw it away' }));
  await waitFor(() => expect(asked.some((a) => a.method === 'DELETE')).toBe(true));
});

test('in class what is prepared is asked by one press more, first what belongs to the part that is on', async () => {
  const other = prepared({ id: 'q2', part: 'Discussion' });
  other.question = { ...other.question, text: 'Of the discussion' };
  answerRequests({ [AT]: [other, prepared()] });
  const segment = { title: 'Lecture', minutes: 5, limits: {}, recording: null };
  const { tools, sent } = roomTools(maren, [
    ...CLASS,
    { type: 'leftPlanned', by: 'maren', segments: [segment] },
    { type: 'cued', by: 'maren', index: 0, segment, changes: {} },
  ]);
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Ask/ }));
  const list = await screen.findByRole('list', { name: 'Prepared questions' });
  const first = within(list).getAllByRole('button')[0]!;
  expect(first.textContent).toContain('Which is it?');
  fireEvent.click(first);
  expect(sent).toEqual([
    { type: 'ask', question: prepared().question, seconds: 60, live: false, prepared: 'q1' },
  ]);
});

test('after class what was asked stands with its answers, and can be kept for another class', async () => {
  const { question } = prepared();
  const info: AskedInfo[] = [
    {
      ...{ id: 7, at: 0, question },
      rounds: [
        {
          tally: { answered: 2, counts: [1, 1] },
          answers: [
            { member: 'ana', name: 'Ana Lanyon', answer: 1 },
            { member: 'ben', name: 'Ben Garrow', answer: 0 },
          ],
        },
      ],
    },
  ];
  answerRequests({ '/api/sessions/s/asked': info, [`POST ${AT}`]: { id: 'q' } });
  inCourse({}, <AskedPanel session="s" name="Lecture 3" zone="America/Halifax" />);
  expect((await screen.findByText(/Ana Lanyon: Flood/)).textContent).toContain('(right)');
  expect(screen.getByText('Ben Garrow: Ebb')).not.toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Keep for another class' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')?.body).toEqual({ question, part: '', seconds: null }),
  );
});
