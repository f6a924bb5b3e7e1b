import { actOf, isTaken, keyFault, keyOf } from './keys';

test('a key is as usual, another, or none at all, as its person says', () => {
  expect([keyOf('hush', {}), keyOf('hush', { hush: 'x' }), keyOf('hush', { hush: null })]).toEqual([
    'h',
    'x',
    null,
  ]);
  expect([actOf('H', {}), actOf('h', { hush: null }), actOf('x', { hush: 'x' }), actOf('j', {})]).toEqual([
    'hush',
    null,
    'hush',
    null,
  ]);
});

test('one key is not given to two, and is one sign', () => {
  expect(keyFault('hush', 'r', {})).toBe('This key is for: raise your hand, and lower it.');
  expect(keyFault('hush', 'r', { hand: null })).toBeNull();
  expect(keyFault('hush', '', {})).toBe('Choose one letter, digit or sign.');
  expect(keyFault('hush', ' ', {})).toBe('Choose one letter, digit or sign.');
  expect(keyFault('hush', 'ж', {})).toBeNull();
});

test('a key is left to what one types in, to a dialog, to a menu, and to the browser', () => {
  const press = (target: EventTarget | null, more = {}) => ({
    ...{ ctrlKey: false, metaKey: false, altKey: false, defaultPrevented: false, target },
    ...more,
  });
  document.body.innerHTML = '<button>a</button><textarea></textarea><input type="checkbox">';
  expect(isTaken(press(document.querySelector('button')))).toBe(false);
  expect(isTaken(press(document.querySelector('input')))).toBe(false);
  expect(isTaken(press(document.querySelector('textarea')))).toBe(true);
  expect(isTaken(press(document.body, { ctrlKey: true }))).toBe(true);
  document.body.innerHTML += '<div role="menu"><i></i></div>';
  expect(isTaken(press(document.querySelector('i')))).toBe(true);
  expect(isTaken(press(document.querySelector('button')))).toBe(false);
  document.body.innerHTML += '<div role="dialog" aria-modal="true"></div>';
  expect(isTaken(press(document.querySelector('button')))).toBe(true);
});
