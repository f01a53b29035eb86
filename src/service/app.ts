import { existsSync } from 'node:fs';
import { join, sep } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler, type Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { openApiDocument } from '../api/openapi.js';
import { pages } from '../api/pages.js';
import { otherPaths, paths } from '../api/paths.js';
import { schemaDocuments } from '../api/schemas.js';
import { valueAt } from '../core/text/own-values.js';
import { ServiceError } from './errors.js';
import type { EventStreams } from './event-streams.js';
import { requireKnownHost, safeHeaders } from './guards.js';
import { Methods } from './methods.js';
import { Metrics } from './metrics.js';
import { problemHandler } from './problem-handler.js';
import { eventStream, register } from './route.js';
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
  // Answers that name no version of their own are distinguished by what they say.
  app.set('etag', 'weak');
  app.set('trust proxy', behindProxy ? 1 : false);
  app.use(
    safeHeaders(),
    requireKnownHost(names),
    metrics.count(),
    service.upkeep.noteRequests(),
    compressed(),
  );
  app.get('/healthz', (_request, response) => {
    // Whoever has no token need not know which folders the service reads.
    const roots = access.required ? [] : service.roots;
    response.json({ service: 'syndexa', version: service.version, roots });
  });
  app.get('/metrics', access.guard(), metrics.show());
  app.use('/api/v1', apiRouter(service, streams));
  const methods = new Methods().add('/healthz', 'get').add('/metrics', 'get');
  if (consoleFolder && existsSync(join(consoleFolder, 'index.html')))
    serveConsole(app, consoleFolder, methods);
  app.use(methods.refuseOthers());
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
  const methods = new Methods();
  for (const { path, method } of [...Object.values(paths), ...otherPaths]) methods.add(path, method);
  api.use(methods.refuseOthers());
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

/** Compresses what is large. Events are sent one by one, as they come. */
function compressed(): RequestHandler {
  return compression({
    threshold: 4_096,
    filter: (request, response) =>
      !String(response.getHeader('Content-Type')).startsWith(eventStream) &&
      compression.filter(request, response),
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

function serveConsole(app: Express, folder: string, methods: Methods): void {
  app.use(
    express.static(folder, {
      index: false,
      redirect: false,
      // The name of an asset has the hash of what is in it.
      setHeaders: (response, path) =>
        void response.setHeader(
          'Cache-Control',
          path.includes(`${sep}assets${sep}`) ? 'public, max-age=31536000, immutable' : 'no-cache',
        ),
    }),
  );
  const sendPage: RequestHandler = (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(folder, 'index.html'));
  };
  for (const path of Object.values(pages)) {
    methods.add(path, 'get');
    app.get(path, sendPage);
  }
  // A mistyped address shows a page of the console to a person, and a JSON error to a program.
  app.get(/^[^.]*$/, (request, response, next) => {
    if (request.accepts(['json', 'html']) !== 'html') return next();
    response.status(404);
    return sendPage(request, response, next);
  });
}
