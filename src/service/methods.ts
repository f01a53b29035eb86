import type { RequestHandler } from 'express';
import { ServiceError } from './errors.js';

/** The methods that each address takes, by the pattern of its path. */
export class Methods {
  readonly #taken = new Map<string, { pattern: RegExp; methods: Set<string> }>();

  /** @param path with parameters in braces or after a colon */
  add(path: string, method: string): this {
    const source = path.replace(/\{\w+\}|:\w+/g, '[^/]+').replace(/[.]/g, '\\.');
    const found = this.#taken.get(source) ?? { pattern: new RegExp(`^${source}/?$`), methods: new Set() };
    found.methods.add(method.toUpperCase());
    if (method === 'get') found.methods.add('HEAD');
    this.#taken.set(source, found);
    return this;
  }

  /** Answers what no handler took: OPTIONS, another method than an address takes, an address that there is not. */
  refuseOthers(): RequestHandler {
    return (request, response) => {
      const { method, path } = request;
      const taken = [...this.#taken.values()].flatMap(({ pattern, methods }) =>
        pattern.test(path) ? [...methods] : [],
      );
      if (taken.length === 0)
        throw new ServiceError('not-found', `There is nothing at ${request.baseUrl}${path}.`, {
          fix: 'The calls are in /api/v1/openapi.json.',
        });
      const allowed = [...new Set([...taken, 'OPTIONS'])].sort().join(', ');
      response.setHeader('Allow', allowed);
      if (method === 'OPTIONS') response.status(204).end();
      else
        throw new ServiceError('wrong-method', `${request.baseUrl}${path} does not take ${method}.`, {
          fix: `It takes ${allowed}.`,
        });
    };
  }
}
