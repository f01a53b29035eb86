import { hostname, networkInterfaces } from 'node:os';
import type { Request, RequestHandler, Response } from 'express';
import { describe, expect, it } from 'vitest';
import { hostNames, isLoopback, requireKnownHost, safeHeaders } from '../../src/service/guards.js';
import { conditionOf, demand, setVersion, type Condition } from '../../src/service/conditions.js';
import { ServiceError } from '../../src/service/errors.js';
import { Methods } from '../../src/service/methods.js';

/** What a handler does with a request: the error that it throws, or undefined where it lets it through. */
function refusal(handler: RequestHandler, request: Partial<Request>): ServiceError | undefined {
  let passed = 0;
  try {
    void handler(request as Request, {} as Response, () => passed++);
  } catch (error) {
    if (error instanceof ServiceError) return error;
    throw error;
  }
  expect(passed).toBe(1);
  return undefined;
}

describe('the addresses of this machine', () => {
  it.each(['127.0.0.1', '127.9.8.7', 'localhost', '[::1]', '::1'])('%s is one', (address) => {
    expect(isLoopback(address)).toBe(true);
  });

  it.each(['0.0.0.0', '128.0.0.1', '127.0.0.1.example', 'x127.0.0.1', 'localhost.example', '::', '127.0.0'])(
    '%s is none',
    (address) => {
      expect(isLoopback(address)).toBe(false);
    },
  );
});

describe('the names of a service', () => {
  it('are the ones that it is given, in small letters, when only this machine reaches it', () => {
    expect(hostNames('127.0.0.1', ['Ads.Brine.example'])).toEqual(new Set(['ads.brine.example']));
    expect(hostNames('localhost', [])).toEqual(new Set());
  });

  it('are the address that it listens on as well, as a URL has it', () => {
    expect(hostNames('10.1.2.3', [])).toEqual(new Set(['10.1.2.3']));
    expect(hostNames('FD00::7', ['a.example'])).toEqual(new Set(['a.example', '[fd00::7]']));
  });

  it.each(['0.0.0.0', '::'])(
    'are all addresses of the machine, and its name, when it listens on %s',
    (any) => {
      const names = hostNames(any, ['a.example']);
      const own = Object.values(networkInterfaces()).flatMap((all) =>
        (all ?? []).map(({ address }) => address),
      );
      expect(names.has(hostname().toLowerCase())).toBe(true);
      expect(names.has('a.example')).toBe(true);
      expect(own.every((address) => names.has(address) || names.has(`[${address}]`))).toBe(true);
      expect(names.has(any)).toBe(own.includes(any));
    },
  );
});

describe('who may ask a service', () => {
  const ask = (headers: Request['headers'], names: string[] = []) =>
    refusal(requireKnownHost(new Set(names)), { headers });

  it.each(['127.0.0.1', '127.0.0.1:4990', 'LOCALHOST:80', '[::1]:12345'])('one who asks %s', (host) => {
    expect(ask({ host })).toBe(undefined);
  });

  it('one who asks it by a name of its own, and no other', () => {
    expect(ask({ host: 'Ads.Brine.example:8443' }, ['ads.brine.example'])).toBe(undefined);
    const other = ask({ host: 'evil.example' }, ['ads.brine.example']);
    expect(other).toMatchObject({
      code: 'forbidden',
      message: 'This service does not answer to the host "evil.example".',
      fix: 'Use the address that it listens on, or name this one with serve --host-name.',
    });
    expect(ask({ host: 'ads.brine.example' })).toMatchObject({ fix: 'Use 127.0.0.1 or localhost.' });
  });

  it.each([undefined, '', '127.0.0.1:x', '127.0.0.1:123456', 'localhost.evil.example', '127.0.0.1 evil'])(
    'none who asks the host %j',
    (host) => {
      expect(ask({ host })).toMatchObject({ code: 'forbidden' });
    },
  );

  it('a page of its own, and no page of another origin', () => {
    const host = 'localhost:4990';
    expect(ask({ host, origin: 'http://localhost:4990' })).toBe(undefined);
    for (const origin of [
      'https://localhost:4990',
      'http://localhost:4990.evil.example',
      'http://evil.example/http://localhost:4990',
      'http://localhost',
      'http://localhost:49900',
      'null',
      '',
    ])
      expect(ask({ host, origin })).toMatchObject({
        code: 'forbidden',
        message: `Pages of ${JSON.stringify(origin)} may not use this service.`,
        fix: 'Open the console at the address of the service.',
      });
  });

  it('a page over TLS, where a proxy may speak it: of a service that has a name', () => {
    const host = 'ads.brine.example';
    expect(ask({ host, origin: `https://${host}` }, [host])).toBe(undefined);
    expect(ask({ host, origin: `http://${host}` }, [host])).toBe(undefined);
    expect(ask({ host, origin: 'https://other.example' }, [host])).toMatchObject({ code: 'forbidden' });
    expect(ask({ host: 'localhost', origin: 'https://localhost' }, [host])).toMatchObject({
      code: 'forbidden',
    });
  });
});

it('every answer says how a browser may use it', () => {
  const headers = new Map<string, string>();
  let passed = 0;
  void safeHeaders()(
    {} as Request,
    { setHeader: (name: string, value: string) => headers.set(name, value) } as unknown as Response,
    () => passed++,
  );
  expect(passed).toBe(1);
  expect(Object.fromEntries(headers)).toEqual({
    'X-Content-Type-Options': 'nosniff',
    'X-Frame-Options': 'DENY',
    'Referrer-Policy': 'no-referrer',
    'Content-Security-Policy':
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'",
  });
});

describe('the condition of a write', () => {
  const read = (headers: Request['headers']) => conditionOf({ headers } as Request);

  it.each<[string, Request['headers'], Condition]>([
    ['one version', { 'if-match': '"v3"' }, [3]],
    ['a later one', { 'if-match': '"v120"' }, [120]],
    ['several', { 'if-match': '"v3", W/"v4" ,"v5"' }, [3, 4, 5]],
    ['a tag of something else', { 'if-match': '"other"' }, []],
    ['an empty tag', { 'if-match': '""' }, []],
    ['a tag with a comma', { 'if-match': '"a,b","v7"' }, [7]],
    ['a number that is too long', { 'if-match': `"v${'1'.repeat(16)}"` }, []],
    ['a number with more around it', { 'if-match': '"xv3", "v3x", "v"' }, []],
    ['anything that is there', { 'if-match': ' * ' }, 'present'],
    ['nothing there', { 'if-none-match': '*' }, 'absent'],
  ])('is %s', (_, headers, condition) => {
    expect(read(headers)).toEqual(condition);
  });

  it.each(['v3', '"v3', '"v3" "v4"', '"v3",', '', 'W/v3', '"a\u0000b"'])(
    'cannot be read from %j',
    (match) => {
      expect(() => read({ 'if-match': match })).toThrow(
        expect.objectContaining({
          code: 'unreadable',
          message: 'If-Match is not a list of entity tags.',
          fix: 'Send the ETag that you read, with its quotation marks, such as "v3".',
        }),
      );
    },
  );

  it.each([{}, { 'if-none-match': '"v3"' }])('has to be there: %j', (headers) => {
    expect(() => read(headers)).toThrow(
      expect.objectContaining({
        code: 'precondition-missing',
        fix: 'Send the ETag that you read as If-Match (or If-None-Match: * for something new).',
      }),
    );
  });
});

describe('a write under a condition', () => {
  const held = (condition: Condition, current: number | undefined) => {
    try {
      demand(condition, current, 'The title kelp');
      return undefined;
    } catch (error) {
      const { code, message, fix } = error as ServiceError;
      return { code, message, fix };
    }
  };

  it.each<[Condition, number | undefined]>([
    ['any', undefined],
    ['any', 3],
    ['new', undefined],
    ['absent', undefined],
    ['present', 3],
    [[3], 3],
    [[2, 3], 3],
  ])('is made under %j at version %s', (condition, current) => {
    expect(held(condition, current)).toBe(undefined);
  });

  it.each<[Condition, number | undefined, string, string]>([
    ['new', 3, 'exists', 'The title kelp already exists.'],
    ['absent', 3, 'changed', 'The title kelp already exists.'],
    ['present', undefined, 'changed', 'The title kelp does not exist, or no longer exists.'],
    [[3], undefined, 'changed', 'The title kelp does not exist, or no longer exists.'],
    [[2], 3, 'changed', 'The title kelp is at version 3, not 2: it was changed in the meantime.'],
    [[1, 2], 3, 'changed', 'The title kelp is at version 3, not 1 or 2: it was changed in the meantime.'],
    [[], 3, 'changed', 'The title kelp is at version 3: it was changed in the meantime.'],
  ])('is refused under %j at version %s', (condition, current, code, message) => {
    expect(held(condition, current)).toMatchObject({ code, message });
    expect(held(condition, current)?.fix).toMatch(/^[A-Z].+\.$/);
  });

  it('is answered with the version that it made', () => {
    const headers = new Map<string, string>();
    setVersion(
      { setHeader: (name: string, value: string) => headers.set(name, value) } as unknown as Response,
      7,
    );
    expect([...headers]).toEqual([['ETag', '"v7"']]);
  });
});

describe('the methods of an address', () => {
  const methods = new Methods()
    .add('/titles', 'get')
    .add('/titles', 'post')
    .add('/titles/{id}', 'put')
    .add('/titles/:id/board', 'get')
    .add('/openapi.json', 'get');
  const asked = (method: string, path: string) => {
    const answer = { status: 0, ended: false, allow: undefined as string | undefined };
    const response = {
      setHeader: (name: string, value: string) => name === 'Allow' && (answer.allow = value),
      status: (code: number) => {
        answer.status = code;
        return { end: () => (answer.ended = true) };
      },
    } as unknown as Response;
    let code: string | undefined;
    let message: string | undefined;
    try {
      void methods.refuseOthers()({ method, path, baseUrl: '/api/v1' } as Request, response, () => undefined);
    } catch (error) {
      ({ code, message } = error as ServiceError);
    }
    return { ...answer, code, message };
  };

  it('are told to who asks for them', () => {
    expect(asked('OPTIONS', '/titles')).toMatchObject({
      status: 204,
      ended: true,
      allow: 'GET, HEAD, OPTIONS, POST',
    });
    expect(asked('OPTIONS', '/titles/kelp/')).toMatchObject({ status: 204, allow: 'OPTIONS, PUT' });
    expect(asked('OPTIONS', '/titles/kelp/board')).toMatchObject({ allow: 'GET, HEAD, OPTIONS' });
  });

  it('are told to who uses another', () => {
    expect(asked('DELETE', '/titles')).toMatchObject({
      status: 0,
      allow: 'GET, HEAD, OPTIONS, POST',
      code: 'wrong-method',
      message: '/api/v1/titles does not take DELETE.',
    });
  });

  it.each(['/nothing', '/titles/a/b', '/openapixjson', '/v1/titles', '/titlesx'])(
    'are none of %s',
    (path) => {
      expect(asked('GET', path)).toMatchObject({
        allow: undefined,
        code: 'not-found',
        message: `There is nothing at /api/v1${path}.`,
      });
      expect(asked('OPTIONS', path)).toMatchObject({ code: 'not-found' });
    },
  );
});
