import type { ErrorRequestHandler } from 'express';
import type { ServiceContext } from './context.js';
import { storageFailure } from '../disk/storage-failure.js';
import { FollowingEndedError } from '../disk/watched-trees.js';
import { ServiceError } from './errors.js';
import { CallerGoneError } from './route.js';

/** Answers a request that failed with a problem, cleaned of secrets. Errors of our own go to the log. */
export function problemHandler({ log, secrets, home }: ServiceContext): ErrorRequestHandler {
  return function sendProblem(error: unknown, request, response, next) {
    if (error instanceof CallerGoneError) return;
    const failure = toServiceError(error, home);
    if (failure.code === 'internal' || failure.code === 'storage')
      log.error({ err: error, path: request.path }, 'A request failed.');
    if (response.headersSent) return next(error);
    const body = JSON.stringify(failure.toProblem());
    response.status(failure.status).type('application/problem+json').send(secrets.cleaner()(body));
  };
}

function toServiceError(error: unknown, home: string): ServiceError {
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
  if (error instanceof FollowingEndedError)
    return new ServiceError('stopping', error.message, {
      fix: 'Ask again once it is started.',
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
  return new ServiceError('internal', 'The service met an error of its own; its log tells more.', {
    fix: 'Look at the service’s log.',
    cause: error,
  });
}
