import { readConfig } from './config';

const environment = { DATABASE_URL: 'mysql://root@127.0.0.1:1/x', NB_DATA: '/data', NB_WEB: '/web' };

test('an incomplete environment ends the start with the name of what is missing', () => {
  expect(() => readConfig({})).toThrow(/DATABASE_URL/);
  expect(() => readConfig({ ...environment, NB_PORT: 'eighty' })).toThrow(/NB_PORT/);
});

test('mail goes to the stand-in mailbox unless an outside server is named', () => {
  expect(readConfig({ ...environment, NB_MAILBOX_PORT: '8213' })).toMatchObject({
    smtpUrl: 'smtp://127.0.0.1:8213',
    standinMailbox: true,
  });
  expect(readConfig({ ...environment, SMTP_URL: 'smtp://mail.saltmarsh.example' }).standinMailbox).toBe(
    false,
  );
});
