import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Faulty } from '../ui/Faulty';
import { leadToFirstFault } from './firstFault';
import { MantineProvider } from '@mantine/core';

const settle = () => act(async () => void (await new Promise((r) => setTimeout(r, 5))));

function Sent({ faults }: { faults: ('name' | 'days')[] }) {
  const [sent, setSent] = useState(false);
  const wrong = (what: 'name' | 'days') => sent && faults.includes(what);
  return (
    <MantineProvider>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setSent(true);
        }}
      >
        <input aria-label="Name" aria-invalid={wrong('name')} />
        <Faulty label="Days" fault={wrong('days') && 'Choose a day.'}>
          <button type="button">Monday</button>
        </Faulty>
        <button>Save</button>
      </form>
    </MantineProvider>
  );
}

let end: () => void;
beforeEach(() => (end = leadToFirstFault()));
afterEach(() => end());

async function send() {
  const save = screen.getByRole('button', { name: 'Save' });
  act(() => save.focus());
  fireEvent.submit(save.closest('form')!);
  await settle();
}

test('who sends what is wrong comes to its first field, and a group says what is wrong with it', async () => {
  render(<Sent faults={['days', 'name']} />);
  await send();
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name' }));
});

test('a fault of several fields is theirs together', async () => {
  render(<Sent faults={['days']} />);
  await send();
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Monday' }));
  const said = screen.getByRole('group', { name: 'Days' }).getAttribute('aria-describedby')!;
  expect(document.getElementById(said)?.textContent).toBe('Choose a day.');
  // Still wrong, sent again: there again.
  await send();
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Monday' }));
});

test('what is right leaves one where one is', async () => {
  render(<Sent faults={[]} />);
  await send();
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Save' }));
});
