import { z } from 'zod';

const Environment = z.object({
  NB_PORT: z.coerce.number().int().default(8210),
  DATABASE_URL: z.url(),
  RELAY_URL: z.string().default(''),
  SMTP_URL: z.string().default(''),
  NB_DATA: z.string(),
  NB_WEB: z.string(),
  /** Added to the machine's clock, ms: lets a demo be laid around another instant. */
  NB_CLOCK_OFFSET: z.coerce.number().default(0),
  NB_DEMO: z.enum(['0', '1']).default('0'),
  NB_MAILBOX_PORT: z.coerce.number().int().default(0),
});

export type Config = ReturnType<typeof readConfig>;

/** The process environment, checked once; a missing value ends the start with its name. */
export function readConfig(environment: NodeJS.ProcessEnv) {
  const parsed = Environment.safeParse(environment);
  if (!parsed.success) {
    const faults = parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ');
    throw new Error(`The environment is incomplete. ${faults}`);
  }
  const e = parsed.data;
  return {
    port: e.NB_PORT,
    origin: `http://127.0.0.1:${e.NB_PORT}`,
    databaseUrl: e.DATABASE_URL,
    relayUrl: e.RELAY_URL,
    smtpUrl: e.SMTP_URL || `smtp://127.0.0.1:${e.NB_MAILBOX_PORT}`,
    /** Mail stays on this machine, where everyone's post can be read. */
    standinMailbox: !e.SMTP_URL,
    mailboxPort: e.NB_MAILBOX_PORT,
    dataDir: e.NB_DATA,
    webDir: e.NB_WEB,
    clockOffset: e.NB_CLOCK_OFFSET,
    demo: e.NB_DEMO === '1',
  };
}
