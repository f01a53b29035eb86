import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { ServiceError } from './errors.js';

const loopback = /^(127(?:\.\d{1,3}){3}|localhost|\[::1\])$/;

/** Whether an address to listen on can be reached from this machine only. */
export function isLoopback(address: string): boolean {
  return loopback.test(address) || address === '::1';
}

/** The names under which a service that listens on an address may be asked, besides those of loopback. */
export function hostNames(listen: string, more: readonly string[]): Set<string> {
  const bracketed = (address: string) => (address.includes(':') ? `[${address}]` : address);
  const names = more.map((name) => name.toLowerCase());
  if (isLoopback(listen)) return new Set(names);
  const any = listen === '0.0.0.0' || listen === '::';
  const own = Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map(({ address }) => address));
  return new Set([
    ...names,
    ...(any ? [...own, hostname()] : [listen]).map((name) => bracketed(name.toLowerCase())),
  ]);
}

/**
 * Lets only requests through that were meant for this service: the Host must be one of its names, and a page that asks
 * must have come from the service itself. This stops other sites from using a person's browser.
 */
export function requireKnownHost(names: ReadonlySet<string>): RequestHandler {
  return function checkHostAndOrigin(request, _response, next) {
    const { host, origin } = request.headers;
    const name = host?.replace(/:\d{1,5}$/, '').toLowerCase();
    if (name === undefined || !(loopback.test(name) || names.has(name))) {
      throw new ServiceError(
        'forbidden',
        `This service does not answer to the host ${JSON.stringify(host ?? '')}.`,
        {
          fix:
            names.size === 0
              ? 'Use 127.0.0.1 or localhost.'
              : 'Use the address that it listens on, or name this one with serve --host-name.',
        },
      );
    }
    // A proxy in front of a service that is named may speak TLS to the browser.
    const allowed = [`http://${host}`, ...(names.has(name) ? [`https://${host}`] : [])];
    if (origin !== undefined && !allowed.includes(origin)) {
      throw new ServiceError('forbidden', `Pages of ${JSON.stringify(origin)} may not use this service.`, {
        fix: 'Open the console at the address of the service.',
      });
    }
    next();
  };
}

/** Headers that keep the console from being framed, sniffed, or fed by other hosts. */
export function safeHeaders(): RequestHandler {
  return function setSafeHeaders(_request, response, next) {
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('X-Frame-Options', 'DENY');
    response.setHeader('Referrer-Policy', 'no-referrer');
    response.setHeader(
      'Content-Security-Policy',
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'",
    );
    next();
  };
}
