import { screen } from '@testing-library/react';
import { show } from '../testing/render';
import { Linked } from './Linked';

const links = (text: string) => {
  const { unmount } = show(
    <p data-testid="written">
      <Linked text={text} />
    </p>,
  );
  expect(screen.getByTestId('written').textContent).toBe(text);
  const found = screen.queryAllByRole('link').map((a) => [a.textContent, a.getAttribute('href')]);
  expect(screen.queryAllByRole('link').every((a) => a.getAttribute('rel')?.includes('noopener'))).toBe(true);
  unmount();
  return found;
};

test.each([
  ['No address here: 12:30, a.b or e.g. this.', []],
  ['See https://tides.example/today.', [['https://tides.example/today', 'https://tides.example/today']]],
  ['(www.tides.example)', [['www.tides.example', 'https://www.tides.example/']]],
  [
    'Both http://a.example/x?y=1#z, and https://b.example/Mean_(level)!',
    [
      ['http://a.example/x?y=1#z', 'http://a.example/x?y=1#z'],
      ['https://b.example/Mean_(level)', 'https://b.example/Mean_(level)'],
    ],
  ],
  ['javascript:alert(1) data:text/html,x https:// http://nowhere', []],
  ['“https://c.example/”', [['https://c.example/', 'https://c.example/']]],
  ['رابط https://d.example/مد؟', [['https://d.example/مد', 'https://d.example/%D9%85%D8%AF']]],
])('of %s', (text, found) => expect(links(text)).toEqual(found));
