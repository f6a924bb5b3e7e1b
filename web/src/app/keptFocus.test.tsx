import { act, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { keepFocus } from './keptFocus';

const settle = () => act(async () => void (await Promise.resolve()));

/** A list of things with an editor in its stead, as pages have them. */
function Things() {
  const [open, setOpen] = useState<string | null>(null);
  const [names, setNames] = useState(['North', 'South']);
  const [busy, setBusy] = useState(false);
  if (open)
    return (
      <section>
        <h2>Change {open}</h2>
        <input aria-label="Name" />
        <button disabled={busy} onClick={() => setBusy(true)}>
          Save
        </button>
        <button onClick={() => setBusy(false)}>Answer</button>
        <button onClick={() => setOpen(null)}>Leave</button>
      </section>
    );
  return (
    <ul>
      {names.map((name) => (
        <li key={name}>
          <button onClick={() => setOpen(name)}>Change</button>
          <button onClick={() => setNames((all) => all.filter((n) => n !== name))}>Drop {name}</button>
        </li>
      ))}
    </ul>
  );
}

let end: () => void;
beforeEach(() => {
  end = keepFocus();
  render(
    <main>
      <h1>Things</h1>
      <Things />
    </main>,
  );
});
afterEach(() => end());

const button = (name: string, nth = 0) => screen.getAllByRole('button', { name })[nth]!;
async function press(e: HTMLElement) {
  act(() => e.focus());
  act(() => e.click());
  await settle();
}

test('focus goes to the heading of what comes in the stead of what had it, and back to what opened it', async () => {
  await press(button('Change', 1));
  expect(document.activeElement).toBe(screen.getByRole('heading', { name: 'Change South' }));
  act(() => screen.getByRole('textbox').focus());
  await press(button('Leave'));
  expect(document.activeElement).toBe(button('Change', 1));
});

test('what works is off and has focus again when it is on', async () => {
  await press(button('Change'));
  const save = button('Save');
  await press(save);
  act(() => save.blur()); // as browsers do with what is off
  act(() => button('Answer').click());
  await settle();
  expect(document.activeElement).toBe(save);
});

test('a row that goes leaves one where one was before it, and with nothing before it at the page’s heading', async () => {
  act(() => button('Change').focus());
  await press(button('Drop South'));
  await act(() => new Promise((r) => setTimeout(r, 700)));
  expect(document.activeElement).toBe(button('Change'));
  await press(button('Drop North'));
  expect(document.activeElement).toBe(screen.getByRole('heading', { level: 1 }));
});

test('what comes a moment later is come to; where nothing comes one is back', async () => {
  jest.useFakeTimers();
  const list = document.createElement('div');
  list.innerHTML = '<button>Before</button><div><button>Show</button></div>';
  document.querySelector('main')!.append(list);
  await act(async () => {});
  const [before, show] = [...list.querySelectorAll('button')];
  const place = list.querySelector('div')!;
  before!.focus();
  show!.focus();
  show!.remove();
  await act(async () => {});
  expect(document.activeElement).toBe(document.body);
  place.innerHTML = '<button>Copy</button>';
  await act(async () => {});
  expect(document.activeElement?.textContent).toBe('Copy');
  place.firstElementChild!.remove();
  await act(async () => {});
  jest.runOnlyPendingTimers();
  expect(document.activeElement).toBe(before);
  jest.useRealTimers();
});

test('what comes later than one waits for it has been opened all the same: from it one is back at what opened it', async () => {
  jest.useFakeTimers();
  const list = document.createElement('div');
  list.innerHTML = '<a href="#x">Letters</a><div><button>Write a notice</button></div>';
  document.querySelector('main')!.append(list);
  await act(async () => {});
  const place = list.querySelector('div')!;
  const stands = () => [...list.querySelectorAll<HTMLElement>('a, input, button')].at(-1)!;
  list.querySelector('a')!.focus();
  stands().focus();
  place.innerHTML = 'It is on its way.';
  await act(async () => {});
  jest.runOnlyPendingTimers();
  expect(document.activeElement).toBe(list.querySelector('a'));
  place.innerHTML = '<label>Title <input></label><button>Leave it</button>';
  list.querySelector('input')!.focus();
  stands().focus();
  place.innerHTML = '<button>Write a notice</button>';
  await act(async () => {});
  expect(document.activeElement).toBe(stands());
  jest.useRealTimers();
});

test('on its way from one field to the next focus is not called back by what closes behind it', async () => {
  const list = document.createElement('div');
  list.innerHTML = '<input><input>';
  document.querySelector('main')!.append(list);
  const [first, second] = [...list.querySelectorAll('input')];
  first!.focus();
  // As in browsers: the page is told that one is left, and works, before the next has it.
  first!.dispatchEvent(new FocusEvent('focusout', { bubbles: true, relatedTarget: second! }));
  first!.blur();
  list.append(document.createElement('p'));
  await act(async () => {});
  expect(document.activeElement).toBe(document.body);
  second!.focus();
  expect(document.activeElement).toBe(second);
});

test('whoever clicked beside everything has put it down', async () => {
  act(() => button('Drop South').focus());
  const drop = button('Drop South');
  screen.getByRole('heading').dispatchEvent(new Event('pointerdown', { bubbles: true }));
  act(() => drop.click());
  await settle();
  expect(document.activeElement).toBe(document.body);
});

test('what is put down stays down: a phone’s keyboard that was sent away does not come again', async () => {
  const list = document.createElement('div');
  list.innerHTML = '<textarea></textarea>';
  document.querySelector('main')!.append(list);
  const field = list.querySelector('textarea')!;
  field.focus();
  field.blur();
  await act(async () => {});
  list.append(document.createElement('p'));
  await act(async () => {});
  expect(document.activeElement).toBe(document.body);
});
