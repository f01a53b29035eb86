import { counted } from '../../core/text/counted.js';
import type { Request, RequestHandler, Response } from 'express';
import { includesRole, type Role, type Session } from '../../api/roles.js';
import { ServiceError } from '../errors.js';
import { Attempts } from './attempts.js';
import { Sessions } from './sessions.js';
import { tokenHash, type TokenHolder, type TokenStore } from './token-store.js';

const cookieName = 'syndexa_session';
/** How long (seconds) a browser keeps the cookie of a session. */
const cookieLasts = 12 * 60 * 60;

const callers = new WeakMap<Request, TokenHolder>();

/** Who a request comes from; undefined when the service requires no token. */
export function callerOf(request: Request): TokenHolder | undefined {
  return callers.get(request);
}

/**
 * Holds a request to the role of its caller.
 * @throws ServiceError `forbidden`
 */
export function demandRole(request: Request, needed: Role): void {
  const caller = callerOf(request);
  if (!caller || includesRole(caller.role, needed)) return;
  throw new ServiceError(
    'forbidden',
    `${caller.name} is ${withArticle(caller.role)}, but this needs ${withArticle(needed)}.`,
    {
      fix: `Ask the administrator of the service for another token: syndexa token add NAME --role ${needed}.`,
    },
  );
}

/** Requires tokens: finds out who a request comes from, and lets nobody else through. */
export class Access {
  private readonly sessions: Sessions;
  private readonly attempts: Attempts;

  /** @param required whether tokens are required; else everybody who reaches the service is an admin */
  constructor(
    private readonly tokens: TokenStore,
    readonly required: boolean,
    now: () => Date,
  ) {
    this.sessions = new Sessions(now);
    this.attempts = new Attempts(now);
  }

  /** Lets only requests with a valid token or session through. */
  guard(): RequestHandler {
    return (request, response, next) => {
      if (this.required) callers.set(request, this.known(request, response));
      next();
    };
  }

  /** Whether a caller still counts, for answers that go on for long. */
  stillCounts(request: Request): boolean {
    return !this.required || this.find(request) !== undefined;
  }

  /** Who is asking, and what they may do. */
  session(request: Request, response: Response): Session {
    if (!this.required) return { who: 'this machine', role: 'admin', required: false };
    const { name, role } = this.known(request, response);
    return { who: name, role, required: true };
  }

  /** Opens a session for a token, as a cookie that neither scripts nor other sites can use. */
  signIn(request: Request, response: Response, token: string): Session {
    if (!this.required) return this.session(request, response);
    const { name, role } = this.checked(request, response, true, () => this.tokens.holderOf(token));
    setCookie(request, response, this.sessions.open(tokenHash(token)), cookieLasts);
    return { who: name, role, required: true };
  }

  signOut(request: Request, response: Response): void {
    const name = cookieOf(request);
    if (name !== undefined) this.sessions.close(name);
    setCookie(request, response, '', 0);
  }

  private known(request: Request, response: Response): TokenHolder {
    return this.checked(request, response, request.headers.authorization !== undefined, () =>
      this.find(request),
    );
  }

  /** Counts wrong tokens. Who gives none, or a session that ended, did not guess. */
  private checked(
    request: Request,
    response: Response,
    guessed: boolean,
    find: () => TokenHolder | undefined,
  ): TokenHolder {
    const address = request.ip ?? 'unknown';
    const wait = this.attempts.waitFor(address);
    if (guessed && wait > 0) {
      response.setHeader('Retry-After', String(wait));
      throw new ServiceError('too-many', 'Too many wrong tokens came from this address.', {
        fix: `Wait ${counted(wait, 'second')}, then try again with the right one.`,
      });
    }
    const holder = find();
    if (holder) return holder;
    if (guessed) this.attempts.fail(address);
    response.setHeader('WWW-Authenticate', 'Bearer realm="syndexa"');
    if (guessed)
      throw new ServiceError('unauthenticated', 'This token is not valid here.', {
        fix: 'Check that it was copied whole. If it was revoked, ask the administrator of the service for another one.',
      });
    throw new ServiceError('unauthenticated', 'This service requires a token, but none was sent.', {
      fix: 'Set SYNDEXA_TOKEN, or sign in to the console. The administrator of the service creates tokens: syndexa token add NAME --role viewer.',
    });
  }

  private find(request: Request): TokenHolder | undefined {
    const { authorization } = request.headers;
    if (authorization !== undefined) {
      const token = /^Bearer ([\w.-]{1,200})$/i.exec(authorization)?.[1];
      return token === undefined ? undefined : this.tokens.holderOf(token);
    }
    const name = cookieOf(request);
    const hash = name === undefined ? undefined : this.sessions.hashOf(name);
    return hash === undefined ? undefined : this.tokens.holderOfHash(hash);
  }
}

function setCookie({ headers }: Request, response: Response, value: string, seconds: number): void {
  const secure = headers.origin?.startsWith('https:') ? '; Secure' : '';
  response.setHeader(
    'Set-Cookie',
    `${cookieName}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${seconds}${secure}`,
  );
}

function cookieOf({ headers }: Request): string | undefined {
  const pairs = (headers.cookie ?? '').split(';').map((pair) => pair.trim().split('='));
  const value = pairs.find(([name]) => name === cookieName)?.[1];
  return value !== undefined && /^[\w-]{20,100}$/.test(value) ? value : undefined;
}

function withArticle(role: Role): string {
  return role === 'viewer' ? 'a viewer' : `an ${role}`;
}
