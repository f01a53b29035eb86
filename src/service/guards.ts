import type { RequestHandler } from 'express';
import { ServiceError } from './errors.js';

const loopback = /^(127(?:\.\d{1,3}){3}|localhost|\[::1\])(:\d{1,5})?$/;

/**
 * Lets only requests through that were meant for this service: the Host must be a loopback name, and a page
 * that asks must have come from the service itself. This stops other sites from using a person's browser.
 */
export function loopbackOnly(): RequestHandler {
  return function checkHostAndOrigin(request, _response, next) {
    const { host, origin } = request.headers;
    if (!host || !loopback.test(host)) {
      throw new ServiceError(
        'forbidden',
        `This service does not answer to the host ${JSON.stringify(host ?? '')}.`,
        { fix: 'Use 127.0.0.1 or localhost.' },
      );
    }
    if (origin !== undefined && origin !== `http://${host}`) {
      throw new ServiceError('forbidden', `Pages of ${JSON.stringify(origin)} may not use this service.`, {
        fix: 'Open the console that the service serves.',
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
