import { setTimeout as wait } from 'node:timers/promises';
import { ServiceError } from '../errors.js';
import { ask, PrivateAddressError, type Answered, type NamedHost } from '../../api/outgoing.js';

/** How long one call may take, and how often it is tried. */
export interface CallLimits {
  timeout: number;
  tries: number;
  /** First pause between two tries, in milliseconds; it doubles. */
  pause: number;
}

export interface PartnerCall {
  network: string;
  method: 'GET' | 'POST' | 'PATCH';
  url: string;
  headers: Record<string, string>;
  body?: unknown;
  /** What is wrong with a readable response; such a call is tried again. */
  fault?: (answer: unknown) => string | null;
  /** The key as it may be shown. */
  keyName: string;
  /** Hosts that the owner named for it. */
  named: readonly NamedHost[];
  /** Takes secrets out of text. */
  clean: (text: string) => string;
}

const maxAnswerBytes = 32 * 1024 * 1024;
const longestWait = 60_000;

/** What went wrong with one try. */
class Failure {
  constructor(
    readonly message: string,
    readonly is: {
      /** Whether another try may go better. */
      again?: boolean;
      /** How long the partner asks to wait (ms). */
      wait?: number;
      /** The partner answers something that makes no sense. */
      odd?: boolean;
      refused?: { status: number; message: string; field: string | undefined };
    },
  ) {}
}

/**
 * One call of a partner, tried again when it fails in a way that may pass: time-outs, broken connections, 5xx,
 * 429 with its Retry-After, answers that cannot be read. Creating calls carry an idempotency key, so trying
 * again does nothing twice.
 * @throws ServiceError `partner-unreachable`, `partner-odd` or `partner-refused`
 */
export async function partnerCall(call: PartnerCall, limits: CallLimits): Promise<unknown> {
  let last: Failure | undefined;
  for (let attempt = 0; attempt < limits.tries; attempt++) {
    if (last) await wait(last.is.wait ?? Math.min(limits.pause * 2 ** (attempt - 1), 5_000));
    const outcome = await tryOnce(call, limits.timeout);
    if (!(outcome instanceof Failure)) return outcome.answer;
    last = outcome;
    if (!outcome.is.again) break;
  }
  throw asError(call, last ?? new Failure('it was not called', {}), limits.tries);
}

async function tryOnce(call: PartnerCall, timeout: number): Promise<{ answer: unknown } | Failure> {
  let answered: Answered;
  try {
    answered = await ask({
      method: call.method,
      url: call.url,
      headers: {
        Accept: 'application/json',
        ...(call.body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...call.headers,
      },
      body: call.body === undefined ? undefined : JSON.stringify(call.body),
      timeout,
      maxBytes: maxAnswerBytes,
      named: call.named,
    });
  } catch (error) {
    return new Failure(call.clean(reasonOf(error, timeout)), {
      again: !(error instanceof PrivateAddressError),
    });
  }
  const { status, headers } = answered;
  // Whatever a network says back is shown, logged or kept: a secret in it stops here.
  const text = call.clean(answered.text);
  if (status === 429 || status === 503)
    return new Failure(`it asks to wait (${status})`, {
      again: true,
      wait: retryAfter(headers['retry-after']),
    });
  if (status >= 500) return new Failure(`it answers ${status}`, { again: true });
  if (status >= 300 && status < 400)
    return new Failure(`it redirects to another address (${status}), where a key is not sent`, {});
  const parsed = parse(text);
  if (status >= 400) {
    const said = errorIn(parsed);
    const message = said.message ?? `it answers ${status}`;
    return new Failure(message, { refused: { status, message, field: said.field } });
  }
  if (parsed === undefined) {
    if (text.trim() === '') return new Failure('it answers with an empty page', { again: true, odd: true });
    const page = /^\s*</.test(text);
    const message = page ? 'it answers with a web page instead of JSON' : 'its answer is not JSON';
    return new Failure(message, { again: true, odd: true });
  }
  const fault = call.fault?.(parsed) ?? null;
  return fault === null ? { answer: parsed } : new Failure(fault, { again: true, odd: true });
}

function reasonOf(error: unknown, timeout: number): string {
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  if (cause instanceof Error && cause.name === 'TimeoutError') return `no answer within ${timeout / 1000} s`;
  return cause instanceof Error ? cause.message || cause.name : String(cause);
}

/** Retry-After in seconds or as a date, in milliseconds from now; bounded. */
function retryAfter(text = ''): number {
  const seconds = /^\d+$/.test(text) ? Number(text) : (Date.parse(text) - Date.now()) / 1000;
  return Number.isFinite(seconds) ? Math.min(Math.max(seconds * 1000, 100), longestWait) : 1_000;
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

function errorIn(parsed: unknown): { message?: string; field?: string } {
  const error = parsed && typeof parsed === 'object' && 'error' in parsed ? parsed.error : parsed;
  if (!error || typeof error !== 'object') return {};
  const { message, field } = error as { message?: unknown; field?: unknown };
  return {
    ...(typeof message === 'string' ? { message: message.slice(0, 500) } : {}),
    ...(typeof field === 'string' ? { field: field.slice(0, 100) } : {}),
  };
}

function asError({ network, keyName }: PartnerCall, failure: Failure, tries: number): ServiceError {
  const { refused, odd } = failure.is;
  if (refused?.status === 401 || refused?.status === 403)
    return new ServiceError('partner-refused', `${network} does not take ${keyName}: ${failure.message}`, {
      fix: 'Look up the key on the network’s pages and set the secret again.',
    });
  if (refused)
    return new ServiceError('partner-refused', `${network} refuses it: ${failure.message}`, {
      ...(refused.field === undefined
        ? {}
        : { errors: [{ field: refused.field, message: refused.message }] }),
      fix: 'Correct it in the roster, then run it again.',
    });
  return new ServiceError(
    odd ? 'partner-odd' : 'partner-unreachable',
    `${network} was asked ${tries} times: ${failure.message}.`,
    {
      fix: odd
        ? 'Check the address in the profile; it may be a web page.'
        : 'Try again later: completed steps are kept and not repeated.',
    },
  );
}
