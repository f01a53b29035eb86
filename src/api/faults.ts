import type { Problem } from './problem.js';

/** Every way in which a call can fail: its HTTP status, its title, and the exit code of a command that meets it. */
export const faults = {
  'not-found': { status: 404, title: 'Not found', exit: 2 },
  invalid: { status: 422, title: 'A value is invalid', exit: 2 },
  unreadable: { status: 400, title: 'The request cannot be read', exit: 2 },
  'too-large': { status: 413, title: 'The request is too large', exit: 2 },
  'too-costly': { status: 422, title: 'The task needs too much time or memory', exit: 2 },
  busy: { status: 503, title: 'The service is busy', exit: 3 },
  stopping: { status: 503, title: 'The service is stopping', exit: 2 },
  exists: { status: 409, title: 'It already exists', exit: 4 },
  changed: { status: 412, title: 'It was changed in the meantime', exit: 4 },
  'precondition-missing': { status: 428, title: 'The version to change is missing', exit: 2 },
  'wrong-method': { status: 405, title: 'The address does not support this method', exit: 2 },
  'not-acceptable': { status: 406, title: 'The response is not available in this format', exit: 2 },
  'wrong-type': { status: 415, title: 'The content type is not supported', exit: 2 },
  stale: { status: 409, title: 'The roster has changed since', exit: 4 },
  'file-changed': { status: 409, title: 'A file has changed since it was read', exit: 4 },
  unauthenticated: { status: 401, title: 'A token is required', exit: 2 },
  forbidden: { status: 403, title: 'Not allowed', exit: 2 },
  'too-many': { status: 429, title: 'Too many requests', exit: 3 },
  'host-not-approved': { status: 403, title: 'A secret may not be sent to this host', exit: 2 },
  'secret-missing': { status: 422, title: 'A secret is missing', exit: 2 },
  'partner-unreachable': { status: 502, title: 'The network cannot be reached', exit: 3 },
  'partner-refused': { status: 502, title: 'The network refused the request', exit: 3 },
  'partner-odd': { status: 502, title: 'The network’s response is invalid', exit: 3 },
  site: { status: 502, title: 'The site does not serve the file', exit: 3 },
  storage: { status: 507, title: 'The data folder cannot be used', exit: 2 },
  internal: { status: 500, title: 'Internal error of the service', exit: 3 },
} as const;
export type FaultCode = keyof typeof faults;

/** The exit code of a command that meets a problem; 2 for one that a newer service has and this client does not know. */
export function exitOf(code: string): number {
  return Object.hasOwn(faults, code) ? faults[code as FaultCode].exit : 2;
}

/** Failures of a command that no call of the service met, by exit code. Its problem document has one of these codes. */
export const commandFaults = {
  2: { code: 'wrong-use', status: 400, title: 'The command was used incorrectly' },
  3: { code: 'unreachable', status: 503, title: 'Something that the command needs is unreachable' },
  4: { code: 'refused', status: 409, title: 'The command was refused' },
} as const;

/** The problem document of a command that failed. */
export function commandProblem(
  exit: number,
  detail: string,
  fix?: string,
  details: readonly string[] = [],
): Problem {
  const { code, status, title } = commandFaults[exit === 3 || exit === 4 ? exit : 2];
  return {
    type: `urn:syndexa:problem:${code}`,
    title,
    status,
    code,
    detail: [detail, ...details].join('\n'),
    ...(fix === undefined ? {} : { fix }),
  };
}

/** The problem document of a command that met an error of its own. */
export function internalProblem(): Problem {
  const { status } = faults.internal;
  return {
    type: 'urn:syndexa:problem:internal',
    title: 'Internal error of the command',
    status,
    code: 'internal',
    detail: 'The command had an internal error; see standard error.',
  };
}
