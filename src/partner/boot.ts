import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express, { type ErrorRequestHandler } from 'express';
import type { Profile } from '../core/network/model.js';
import { PartnerClock } from './clock.js';
import type { PartnerContext } from './context.js';
import { Refusal } from './errors.js';
import { Faults } from './faults.js';
import { seeded } from '../core/text/seeded.js';
import { controlRoutes } from './routes/control.js';
import { inventoryRoutes, type RateRule } from './routes/inventory.js';
import { publicRoutes } from './routes/public.js';
import { reportRoutes } from './routes/reports.js';
import { servingRoutes } from './routes/serving.js';
import { ReportDesk } from './reports/desk.js';
import { Market } from './serving/market.js';
import { Books } from './store/books.js';
import { Ledger } from './store/ledger.js';
import { openBooks } from './store/open.js';

export interface PartnerOptions {
  port: number;
  profiles: readonly Profile[];
  /** Where the books are kept; null for memory only. */
  folder?: string | null;
  /** The same seed gives the same IDs. */
  seed?: number;
  rate?: RateRule;
  /** Opens the control calls; made up when it is not given. */
  token?: string;
}

export interface RunningPartner {
  url: string;
  token: string;
  close(): Promise<void>;
}

/** Starts a simulated network company on the loopback address; it is for every profile it is given. */
export async function startPartner(options: PartnerOptions): Promise<RunningPartner> {
  const { port, profiles, folder = null, seed = 1, rate = { limit: 400, seconds: 1 } } = options;
  const token = options.token ?? randomBytes(18).toString('base64url');
  const { db, close } = openBooks(folder);
  const clock = new PartnerClock();
  const books = new Books(db, clock, seeded(seed));
  const context: PartnerContext = {
    books,
    reports: new ReportDesk(books, clock, seed),
    ledger: new Ledger(db, clock),
    market: new Market(seed),
    clock,
    faults: new Faults(),
    profiles: new Map(profiles.map((profile) => [profile.id, profile])),
  };
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(function loopbackOnly(request, _response, next) {
    if (!/^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(request.headers.host ?? ''))
      throw new Refusal('key-unknown', 'Only this machine is answered.');
    next();
  });
  app.use(express.json({ limit: '1mb' }));
  const router = express.Router();
  publicRoutes(router, context);
  servingRoutes(router, context);
  controlRoutes(router, context, token);
  inventoryRoutes(router, context, rate);
  reportRoutes(router, context);
  app.use(router);
  app.use((request) => {
    throw new Refusal('not-found', `There is nothing at ${request.path}.`);
  });
  app.use(refuse);
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    token,
    async close() {
      const closed = new Promise((resolve) => server.close(resolve));
      server.closeAllConnections();
      await closed;
      close();
    },
  };
}

const refuse: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) return next(error);
  if (error instanceof Refusal) return void response.status(error.status).json(error.body());
  const status = error instanceof Error && 'status' in error ? Number(error.status) : 500;
  const code = status < 500 ? 'unreadable' : 'broken';
  response
    .status(status)
    .json({ error: { code, message: error instanceof Error ? error.message : String(error) } });
};
