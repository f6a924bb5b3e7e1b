import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { noPreferences, Preferences, SignIn, type DemoEntrance, type Me } from '@nimble-bell/core/api';
import type { Context } from '../context';
import { DEMO_PASSWORD } from '../demo/scenario';
import { AppError, parse } from '../errors';
import { passwordFits } from './password';
import { COOKIE, cookieOf, personIdOf, principalIfAny, principalOf } from './principal';
import {
  closeSession,
  demoAccounts,
  demoLinks,
  keepPreferences,
  openSession,
  personByEmail,
  preferencesOf,
} from './store';

const NOBODY = { id: '', name: '', email: '', zone: '' };

/** Two students of one course and one of another, by different first names: who looks for one finds that one. */
function entrants(links: readonly { name: string; code: string; link: string }[]) {
  const first = (name: string) => name.split(' ')[0];
  const chosen: (typeof links)[number][] = [];
  for (const l of links) {
    const most = l.code === 'NAV-210' ? 2 : 1;
    if (chosen.filter((c) => c.code === l.code).length >= most) continue;
    if (!chosen.some((c) => first(c.name) === first(l.name))) chosen.push(l);
  }
  return chosen;
}

export function accountRoutes(ctx: Context): Router {
  const router = Router();
  const tries = rateLimit({
    windowMs: 60_000,
    limit: 30,
    skipSuccessfulRequests: true,
    handler: (_req, _res, next) => next(new AppError('too-often')),
  });

  router.get('/me', async (req, res) => {
    const asks = await principalIfAny(ctx, req.headers);
    const { id, name, email, zone } = asks?.kind === 'account' ? asks.person : NOBODY;
    const me: Me = {
      now: ctx.now(),
      person: asks?.kind === 'account' ? { id, name, email, zone } : null,
      demo: ctx.config.demo,
      preferences: asks ? await preferencesOf(ctx.db, personIdOf(asks)) : noPreferences(),
    };
    res.json(me);
  });

  /** One's own ways, all of them at once. */
  router.put('/me/preferences', async (req, res) => {
    const person = personIdOf(await principalOf(ctx, req.headers));
    await keepPreferences(ctx.db, person, parse(Preferences, req.body));
    res.json({});
  });

  router.post('/sign-in', tries, async (req, res) => {
    const { email, password } = parse(SignIn, req.body);
    const person = await personByEmail(ctx.db, email);
    if (!person?.password_hash || !(await passwordFits(password, person.password_hash)))
      throw new AppError('wrong-password');
    const token = await openSession(ctx.db, person.id, ctx.now());
    res.cookie(COOKIE, token, { httpOnly: true, sameSite: 'lax', path: '/', maxAge: 14 * 86_400_000 });
    res.json({ name: person.name });
  });

  router.post('/sign-out', async (req, res) => {
    const token = cookieOf(req.headers);
    if (token) await closeSession(ctx.db, token);
    res.clearCookie(COOKIE);
    res.json({});
  });

  /** Who one can enter the demo as. There is no such list outside the demo. */
  router.get('/demo', async (_req, res) => {
    if (!ctx.config.demo) throw new AppError('not-found');
    const people = await demoAccounts(ctx.db);
    const links = await demoLinks(ctx.db);
    const entrance: DemoEntrance = {
      password: DEMO_PASSWORD,
      people: people.map(({ name, email, role, codes }) => ({ name, email, role: `${role} of ${codes}` })),
      links: entrants(links).map((l) => ({
        name: l.name,
        path: `/in/${l.link}`,
        about: `student of ${l.code}`,
      })),
    };
    res.json(entrance);
  });
  return router;
}
