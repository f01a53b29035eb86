import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type RequestHandler, type Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { openApiDocument } from '../api/openapi.js';
import { schemaDocuments } from '../api/schemas.js';
import { valueAt } from '../core/text/own-values.js';
import { ServiceError } from './errors.js';
import type { EventStreams } from './event-streams.js';
import { meantForUs, safeHeaders } from './guards.js';
import { Metrics } from './metrics.js';
import { problemHandler } from './problem-handler.js';
import { register } from './route.js';
import { handlers } from './routes/index.js';
import { sessionHandlers } from './routes/session.js';
import type { Service } from './service.js';

export interface AppOptions {
  streams: EventStreams;
  /** Holds the built console; null serves none. */
  consoleFolder: string | null;
  /** Names besides those of loopback under which the service may be asked. */
  names: ReadonlySet<string>;
  /** Whether a trusted proxy in front reports the client address in X-Forwarded-For. */
  behindProxy: boolean;
}

/** The service's HTTP interface. */
export function createApp(
  service: Service,
  { streams, consoleFolder, names, behindProxy }: AppOptions,
): Express {
  const app = express();
  const metrics = new Metrics(service);
  const { access } = service;
  app.disable('x-powered-by');
  app.set('etag', false);
  app.set('trust proxy', behindProxy ? 1 : false);
  app.use(safeHeaders(), meantForUs(names), metrics.count(), service.upkeep.noteRequests());
  app.get('/healthz', (_request, response) => {
    // Whoever has no token need not know which folders the service reads.
    const roots = access.required ? [] : service.roots;
    response.json({ service: 'syndexa', version: service.version, roots });
  });
  app.get('/metrics', access.guard(), metrics.show());
  app.use('/api/v1', apiRouter(service, streams));
  if (consoleFolder && existsSync(join(consoleFolder, 'index.html'))) serveConsole(app, consoleFolder);
  app.use(problemHandler(service));
  return app;
}

function apiRouter(service: Service, streams: EventStreams): Router {
  const api = express.Router();
  const { access } = service;
  api.use(rateLimited(access.required), noStore);
  api.use('/session', express.json({ limit: '4kb' }));
  register(api, sessionHandlers, service);
  // Nothing of a request is read before it is known who sends it.
  api.use(access.guard());
  api.use(['/blobs', '/titles/:title/collect', '/roster'], express.json({ limit: '64mb' }));
  api.use(express.json({ limit: '16mb' }));
  api.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument(service.version));
  });
  api.get('/schemas/:name', sendSchema);
  api.get('/events', streams.open());
  register(api, handlers, service);
  api.use(function unknownCall(request) {
    throw new ServiceError('not-found', `There is no call ${request.method} ${request.originalUrl}.`, {
      fix: 'See /api/v1/openapi.json.',
    });
  });
  return api;
}

function rateLimited(asksForTokens: boolean): RequestHandler {
  return rateLimit({
    windowMs: 10_000,
    limit: 5_000,
    validate: false,
    // Without tokens, everybody who asks is on this machine: they share one count.
    keyGenerator: ({ ip = 'unknown' }) => (asksForTokens ? ip : 'loopback'),
    handler: (_request, _response, next) =>
      next(new ServiceError('too-many', 'Too many requests in ten seconds.', { fix: 'Wait ten seconds.' })),
  });
}

const noStore: RequestHandler = (_request, response, next) => {
  response.setHeader('Cache-Control', 'no-store');
  next();
};

const sendSchema: RequestHandler<{ name: string }> = ({ params }, response) => {
  const schemas = schemaDocuments();
  const schema = valueAt(schemas, params.name);
  if (!schema)
    throw new ServiceError('not-found', `There is no schema ${params.name}.`, {
      fix: `The schemas are ${Object.keys(schemas).join(', ')}.`,
    });
  response.type('application/schema+json').send(JSON.stringify(schema));
};

function serveConsole(app: Express, folder: string): void {
  app.use(express.static(folder, { index: false, maxAge: '1h' }));
  app.get(/^\/(?!api\/).*/, (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(folder, 'index.html'));
  });
}
