import { keepsAnswer } from './rules';

test('a device keeps what a link was told of its term, and nothing that an account was told', () => {
  expect([keepsAnswer('/api/my-course', 'Link abc'), keepsAnswer('/api/me', 'Link abc')]).toEqual([
    true,
    true,
  ]);
  expect([keepsAnswer('/api/me', null), keepsAnswer('/api/courses', 'Link abc')]).toEqual([false, false]);
});
