import path from 'node:path';
import compression from 'compression';
import express, { type Express, type Request, type Response } from 'express';
import packed from 'express-static-gzip';
import helmet from 'helmet';
import { accountRoutes } from './accounts/routes';
import { calendarRoutes } from './calendars/routes';
import type { Context } from './context';
import { courseRoutes } from './courses/routes';
import { keepingRoutes } from './keeping/routes';
import { draftRoutes } from './drafts/routes';
import { AppError, errorHandler } from './errors';
import { mailRoutes } from './mail/routes';
import type { MediaRelay } from './media/relay';
import { attachedRoutes } from './attached/routes';
import { notesRoutes } from './notes/routes';
import { materialRoutes } from './materials/routes';
import { noticeRoutes } from './notices/routes';
import { questionRoutes } from './questions/routes';
import { filmRoutes } from './film/routes';
import { slidesRoutes } from './slides/routes';
import { planningRoutes } from './planning/routes';
import { privacyRoutes } from './privacy/routes';
import { careRoutes } from './recordings/care';
import { stillRoutes } from './recordings/still';
import { recordingRoutes } from './recordings/routes';
import { rehearsalRoutes, type Rehearsing } from './rehearsal/routes';
import { reuseRoutes } from './reuse/routes';
import { rulesRoutes } from './rules/routes';
import { rollRoutes } from './sessions/rollRoutes';
import { sessionRoutes } from './sessions/routes';
import { rosterRoutes } from './roster/routes';
import { mailboxRoutes, telephoneRoutes } from './standins/routes';
import { studentRoutes } from './student/routes';
import { termRoutes } from './terms/routes';
import { visitRoutes } from './visits/routes';
import { boardRoutes } from './after/boards';
import { afterRoutes } from './after/routes';
import { wordRoutes } from './after/words';
import { chapterRoutes } from './recordings/chapters';
import { cutRoutes } from './recordings/cuts/routes';
import { exportRoutes } from './recordings/exports/routes';
import { listeningRoutes } from './recordings/listening/routes';
import { shareRoutes } from './recordings/shares/routes';
import { spaceRoutes } from './recordings/space/routes';
import { noteRoutes } from './watching/notes/routes';
import { watchingRoutes } from './watching/routes';
import { writingRoutes } from './writing/routes';

const CONTENT_POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:'],
    mediaSrc: ["'self'", 'blob:'],
    connectSrc: ["'self'", 'ws:'],
    frameAncestors: ["'none'"],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
  },
};

/** A request does not wait longer than this for what it changed to reach open rooms, ms. */
const HEEDED_MS = 1000;

/** What is given to a class, and written by it. */
const ofClasses = (ctx: Context) => [
  noticeRoutes(ctx),
  materialRoutes(ctx),
  attachedRoutes(ctx),
  notesRoutes(ctx),
  boardRoutes(ctx),
  visitRoutes(ctx),
  privacyRoutes(ctx),
  writingRoutes(ctx),
  questionRoutes(ctx),
  slidesRoutes(ctx),
  filmRoutes(ctx),
  rollRoutes(ctx),
];

/** What is recorded, and watched. */
const ofRecordings = (ctx: Context) => [
  recordingRoutes(ctx),
  afterRoutes(ctx),
  wordRoutes(ctx),
  chapterRoutes(ctx),
  cutRoutes(ctx),
  exportRoutes(ctx),
  careRoutes(ctx),
  stillRoutes(ctx),
  listeningRoutes(ctx),
  shareRoutes(ctx),
  spaceRoutes(ctx),
  watchingRoutes(ctx),
  noteRoutes(ctx),
];

/** A request's way: headers, body, the part it is for, the page itself, and last the one place where errors end. */
export function createApp(ctx: Context, relay: MediaRelay, rehearsing: Rehearsing): Express {
  const app = express();
  app.disable('x-powered-by');
  assets(app, ctx.config.webDir);
  app.use(helmet({ contentSecurityPolicy: CONTENT_POLICY, strictTransportSecurity: false }));
  app.use(compression());
  app.use(express.json({ limit: '6mb' }));
  app.use('/api', (req, res, next) => {
    // Whatever is written may touch who is in a room now: that is so before the request is answered.
    if (req.method !== 'GET') {
      const send = res.json.bind(res);
      res.json = (body) => {
        const heeded: Promise<unknown>[] = [];
        if (res.statusCode < 400) ctx.signals.emit('changed', heeded);
        const late = new Promise((resolve) => setTimeout(resolve, HEEDED_MS).unref());
        void Promise.race([Promise.allSettled(heeded), late]).then(() => send(body));
        return res;
      };
    }
    next();
  });

  app.get('/api/health', (_req, res) => {
    res.json({ ok: true, pid: process.pid, relay: relay.available, now: ctx.now() });
  });
  app.use(
    '/api',
    accountRoutes(ctx),
    courseRoutes(ctx),
    keepingRoutes(ctx),
    termRoutes(ctx),
    planningRoutes(ctx),
    reuseRoutes(ctx),
    rulesRoutes(ctx),
  );
  app.use('/api', calendarRoutes(ctx), draftRoutes(ctx), rosterRoutes(ctx), mailRoutes(ctx));
  app.use('/api', ...ofClasses(ctx));
  app.use(
    '/api',
    sessionRoutes(ctx),
    rehearsalRoutes(ctx, rehearsing),
    studentRoutes(ctx),
    ...ofRecordings(ctx),
  );
  app.use('/api/mailbox', mailboxRoutes(ctx));
  app.use('/api', telephoneRoutes(ctx));
  app.use('/api', (_req, _res, next) => next(new AppError('not-found')));

  pages(app, ctx.config.webDir);
  app.use(errorHandler(ctx.log));
  return app;
}

const packedFiles = (at: string, serveStatic: object) =>
  packed(at, { enableBrotli: true, orderPreference: ['br', 'gz'], index: false, serveStatic });

/** What a build made, each file under a name of its own: kept for good, and sent without what only a page needs to say. */
function assets(app: Express, folder: string) {
  const setHeaders = (res: Response) => res.setHeader('X-Content-Type-Options', 'nosniff');
  app.use(
    '/assets',
    packedFiles(path.join(folder, 'assets'), { immutable: true, maxAge: '1y', etag: false, setHeaders }),
    // A file of an older build is gone: its page is told so, instead of being handed a page in its place.
    (_req: Request, res: Response) => void res.sendStatus(404),
  );
  app.use(packedFiles(folder, { maxAge: '1h', setHeaders }));
}

/** The pages: every address of the product is answered with the one page. */
function pages(app: Express, folder: string) {
  app.get('/{*page}', (_req, res) =>
    res.sendFile(path.join(folder, 'index.html'), {
      dotfiles: 'allow',
      headers: { 'Cache-Control': 'no-cache' },
    }),
  );
}
