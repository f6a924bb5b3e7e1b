import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { CAPABILITIES, rowOf, CAPABILITY_IDS, type Permission } from '../limits/capabilities';
import type { Role } from '../roster/role';
import { courseLimits, entry, opening, TestRoom, maren } from '../testing/index';
import { exceptionEvents, may } from './index';

const FILE = path.join(__dirname, 'verdicts.golden.txt');
const ROLES: Role[] = ['teacher', 'assistant', 'student', 'guest', 'observer'];
const PHASES = ['waiting', 'on', 'hushed'] as const;
const HAVING = ['nothing', 'the floor', 'an exception that opens', 'one that closes'] as const;

/** One in a room at this phase, under one state of one capability, having this. */
function verdict(
  capability: (typeof CAPABILITY_IDS)[number],
  state: Permission,
  phase: (typeof PHASES)[number],
  role: Role,
  having: (typeof HAVING)[number],
) {
  const room = new TestRoom().happen(
    opening([courseLimits({ [capability]: state })]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana', 'Ana Lanyon', role),
  );
  if (phase !== 'waiting') room.do(maren, { type: 'ringIn' });
  if (having === 'the floor') room.do(maren, { type: 'giveFloor', member: 'ana' });
  if (having.startsWith('an exception') || having === 'one that closes') {
    const own = having === 'one that closes' ? 'closed' : 'open';
    const one = { member: 'ana', capability, state: own, until: null, by: 'maren' } as const;
    room.happen(...exceptionEvents(room.state, [one], room.now));
  }
  if (phase === 'hushed') room.do(maren, { type: 'hush' });
  const { allowed, because } = may(room.state, { member: 'ana', role }, capability);
  return `${allowed ? 'may' : '-'} ${because.layer}`;
}

/** Every case by what it comes to: those that come to the same stand in one line, so that it can be read by eye. */
function table(): string {
  const lines = new Map<string, string[]>();
  for (const capability of CAPABILITY_IDS)
    for (const state of rowOf(capability).states)
      for (const phase of PHASES)
        for (const having of HAVING) {
          if (having === 'the floor' && phase === 'waiting') continue;
          const each = ROLES.map((role) => `${role} ${verdict(capability, state, phase, role, having)}`);
          const line = `${state}, ${phase}, having ${having}: ${each.join(', ')}`;
          lines.set(line, [...(lines.get(line) ?? []), capability]);
        }
  return [...lines]
    .map(([line, of]) => `${of.length === CAPABILITY_IDS.length ? 'everything' : of.join(' ')}\n  ${line}\n`)
    .join('');
}

test('every capability in every state, phase and role, with the floor and with exceptions, is decided as the list says', () => {
  const now = table();
  if (process.env.GOLDEN || !existsSync(FILE)) writeFileSync(FILE, now);
  expect(now).toBe(readFileSync(FILE, 'utf8'));
  expect(Object.keys(CAPABILITIES).length).toBeGreaterThanOrEqual(CAPABILITY_IDS.length);
});
