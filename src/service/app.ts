import { valueAt } from '../core/text/own-values.js';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import { openApiDocument } from '../api/openapi.js';
import { schemaDocuments } from '../api/schemas.js';
import type { ServiceContext } from './context.js';
import { ServiceError } from './errors.js';
import { meantForUs, safeHeaders } from './guards.js';
import { bind } from './route.js';
import { appAdsRoutes } from './routes/app-ads.js';
import { attributionRoutes } from './routes/attribution.js';
import { inventoryRoutes } from './routes/inventory.js';
import { networkRoutes } from './routes/networks.js';
import { rosterRoutes } from './routes/roster.js';
import { adoptingRoutes } from './routes/adopting.js';
import { acceptanceRoutes } from './routes/acceptances.js';
import { snapshotRoutes, startEvents } from './routes/snapshots.js';
import { stepsRoutes } from './routes/steps.js';
import { treeRoutes } from './routes/trees.js';
import { RosterWork } from './roster-work.js';
import { TreeWork } from './tree-work.js';

export interface AppOptions {
  /** Holds the built console; null serves none. */
  consoleFolder: string | null;
  /** Names besides those of loopback under which the service may be asked. */
  names: ReadonlySet<string>;
  /** Whether a trusted proxy in front reports the client address in X-Forwarded-For. */
  behindProxy: boolean;
}

/** Puts the service together. */
export function createApp(
  context: ServiceContext,
  { consoleFolder, names, behindProxy }: AppOptions,
): Express {
  const app = express();
  const { access } = context;
  const work = new TreeWork(context);
  const counts = new Map<string, number>();
  const openStreams = new Set<() => void>();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.set('trust proxy', behindProxy ? 1 : false);
  app.use(safeHeaders(), meantForUs(names));
  app.use(function countRequests(_request, response, next) {
    response.on('finish', () => {
      const key = `${Math.floor(response.statusCode / 100)}xx`;
      counts.set(key, (counts.get(key) ?? 0) + 1);
    });
    next();
  });
  app.get('/healthz', (_request, response) => {
    // Whoever has no token need not know which folders the service reads.
    const roots = access.required ? [] : context.roots;
    response.json({ service: 'syndexa', version: context.version, roots });
  });
  app.get('/metrics', access.guard(), (_request, response) => {
    const memory = process.memoryUsage();
    const lines = [...counts].map(
      ([status, count]) => `syndexa_http_responses_total{status="${status}"} ${count}`,
    );
    const gauges = [
      `syndexa_resident_bytes ${memory.rss}`,
      `syndexa_heap_bytes ${memory.heapUsed}`,
      `syndexa_revision ${context.roster.revision()}`,
    ];
    response.type('text/plain; version=0.0.4').send([...lines, ...gauges, ''].join('\n'));
  });

  const api = express.Router();
  api.use(
    rateLimit({
      windowMs: 10_000,
      limit: 5_000,
      validate: false,
      // Without tokens, everybody who asks is on this machine: they share one count.
      keyGenerator: ({ ip = 'unknown' }) => (access.required ? ip : 'loopback'),
      handler: (_request, _response, next) =>
        next(new ServiceError('too-many', 'Too many requests in ten seconds.', { fix: 'Wait ten seconds.' })),
    }),
  );
  api.use(function noStore(_request, response, next) {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  api.use('/session', express.json({ limit: '4kb' }));
  bind(api, 'session', ({ request, response }) => access.session(request, response));
  bind(api, 'signIn', ({ body, request, response }) => access.signIn(request, response, body.token));
  bind(api, 'signOut', ({ request, response }) => {
    access.signOut(request, response);
    return {};
  });
  // Nothing of a request is read before it is known who sends it.
  api.use(access.guard());
  api.use(['/blobs', '/titles/:title/collect'], express.json({ limit: '64mb' }));
  api.use(express.json({ limit: '16mb' }));
  api.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument(context.version));
  });
  api.get('/schemas/:name', (request, response) => {
    const schema = valueAt(schemaDocuments(), request.params.name);
    if (!schema)
      throw new ServiceError('not-found', `There is no schema ${request.params.name}.`, {
        fix: `The schemas are ${Object.keys(schemaDocuments()).join(', ')}.`,
      });
    response.type('application/schema+json').send(JSON.stringify(schema));
  });
  api.get('/events', (request, response) => {
    const send = startEvents(response, context);
    send('hello', { version: context.version });
    const stop = context.events.listen((event) => {
      if (access.stillCounts(request)) send(event.kind, event);
      else end();
    });
    const end = () => {
      stop();
      openStreams.delete(end);
      response.end();
    };
    openStreams.add(end);
    request.on('close', end);
  });
  const roster = new RosterWork(context);
  adoptingRoutes(api, context, { trees: work, roster });
  rosterRoutes(api, context, roster);
  inventoryRoutes(api, context, roster);
  networkRoutes(api, context);
  stepsRoutes(api, context);
  acceptanceRoutes(api, context);
  appAdsRoutes(api, context);
  attributionRoutes(api, context, work);
  snapshotRoutes(api, context, work);
  app.locals.followTrees = treeRoutes(api, context, work);
  api.use(function unknownCall(request) {
    throw new ServiceError('not-found', `There is no call ${request.method} ${request.originalUrl}.`, {
      fix: 'See /api/v1/openapi.json.',
    });
  });
  app.use('/api/v1', api);
  app.locals.endStreams = () => [...openStreams].forEach((end) => end());

  if (consoleFolder && existsSync(join(consoleFolder, 'index.html'))) {
    app.use(express.static(consoleFolder, { index: false, maxAge: '1h' }));
    app.get(/^\/(?!api\/).*/, (_request, response) => {
      response.setHeader('Cache-Control', 'no-cache');
      response.sendFile(join(consoleFolder, 'index.html'));
    });
  }
  app.use(problemHandler(context));
  return app;
}

function problemHandler({ log, secrets }: ServiceContext): ErrorRequestHandler {
  return function sendProblem(error: unknown, request, response, next) {
    const failure = toServiceError(error);
    if (failure.code === 'internal') log.error({ err: error, path: request.path }, 'A request failed.');
    if (response.headersSent) return next(error);
    const body = JSON.stringify(failure.toProblem());
    response.status(failure.status).type('application/problem+json').send(secrets.cleaner()(body));
  };
}

function toServiceError(error: unknown): ServiceError {
  if (error instanceof ServiceError) return error;
  const type = error instanceof Error && 'type' in error ? String(error.type) : '';
  if (type === 'entity.too.large')
    return new ServiceError('too-large', 'The body is larger than this call takes.', {
      fix: 'Send less at once.',
      cause: error,
    });
  if (
    type.startsWith('entity.') ||
    type.startsWith('encoding.') ||
    type.startsWith('charset.') ||
    type === 'request.aborted'
  ) {
    return new ServiceError('unreadable', 'The body is not JSON that can be read.', {
      fix: 'Send valid JSON with Content-Type: application/json.',
      cause: error,
    });
  }
  if (error instanceof URIError)
    return new ServiceError('unreadable', 'The address cannot be read.', { cause: error });
  return new ServiceError('internal', 'The service met an error of its own; its log tells more.', {
    fix: 'Look at the service’s log.',
    cause: error,
  });
}
