import type { ErrorRequestHandler } from 'express';
import type { ServiceContext } from './context.js';
import { storageFailure } from '../disk/storage-failure.js';
import { FollowingEndedError } from '../disk/watched-trees.js';
import { noteError } from './error-log.js';
import { ServiceError } from './errors.js';
import { CallerGoneError } from './route.js';

/** Answers a request that failed with a problem, cleaned of secrets. Errors of our own go to the log. */
export function problemHandler(context: ServiceContext): ErrorRequestHandler {
  return function sendProblem(error: unknown, request, response, next) {
    if (error instanceof CallerGoneError) return;
    const failure = failureOf(error, context, request.path);
    if (response.headersSent) return next(error);
    // What was said of the answer that did not come to be.
    for (const name of ['ETag', 'Link', 'Location', 'Cache-Control']) response.removeHeader(name);
    const body = JSON.stringify(failure.toProblem());
    response
      .status(failure.status)
      .set('Cache-Control', 'no-store')
      .type('application/problem+json')
      .send(context.secrets.cleaner()(body));
  };
}

/** The failure that an error comes to. Those of our own are noted in the log, and in a file that the failure names. */
export function failureOf(
  error: unknown,
  { log, home, secrets, version, now }: Pick<ServiceContext, 'log' | 'home' | 'secrets' | 'version' | 'now'>,
  path?: string,
): ServiceError {
  const failure = toServiceError(error, home);
  if (failure.code === 'internal' || failure.code === 'storage')
    log.error({ err: error, path }, 'A request failed.');
  if (failure.code !== 'internal') return failure;
  const file = noteError(home, { error, at: now(), version, path }, secrets.cleaner());
  const fix =
    file === undefined
      ? 'See the log of the service.'
      : `The details are at the end of ${file}: include them when you report it.`;
  return new ServiceError('internal', failure.message, { fix, cause: error });
}

function toServiceError(error: unknown, home: string): ServiceError {
  if (error instanceof ServiceError) return error;
  const type = error instanceof Error && 'type' in error ? String(error.type) : '';
  if (type === 'entity.too.large')
    return new ServiceError('too-large', 'The body is larger than this call accepts.', {
      fix: 'Send less at once.',
      cause: error,
    });
  if (type === 'encoding.unsupported' || type === 'charset.unsupported')
    return new ServiceError('wrong-type', 'The body has an unsupported encoding.', {
      fix: 'Send JSON in UTF-8, plain or with Content-Encoding gzip, deflate or br.',
      cause: error,
    });
  if (isUnreadable(error, type)) {
    return new ServiceError('unreadable', 'The body is not valid JSON.', {
      fix: 'Send valid JSON with Content-Type: application/json, compressed as Content-Encoding says.',
      cause: error,
    });
  }
  if (error instanceof FollowingEndedError)
    return new ServiceError('stopping', error.message, {
      fix: 'Try again when it has restarted.',
      cause: error,
    });
  if (error instanceof URIError)
    return new ServiceError('unreadable', 'The address cannot be read.', { cause: error });
  const storage = storageFailure(error, home);
  if (storage)
    return new ServiceError(storage.passes ? 'busy' : 'storage', storage.message, {
      fix: storage.fix,
      cause: error,
    });
  return new ServiceError('internal', 'The service had an internal error.', { cause: error });
}

/** Whether an error of the body parser, or of what decompresses for it, tells of what was sent. */
function isUnreadable(error: unknown, type: string): boolean {
  const { code, status } = (error ?? {}) as { code?: unknown; status?: unknown };
  const isOfParser = ['entity.', 'encoding.', 'charset.', 'request.', 'stream.'].some((start) =>
    type.startsWith(start),
  );
  return (
    isOfParser ||
    status === 400 ||
    (typeof code === 'string' && /^(Z_|ERR_BROTLI|ERR_)/.test(code) && status !== undefined)
  );
}
