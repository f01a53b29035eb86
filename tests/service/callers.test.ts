import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Access, callerOf, demandRole } from '../../src/service/access/access.js';
import { Attempts } from '../../src/service/access/attempts.js';
import { openTokens, type OpenTokens } from '../../src/service/access/open-tokens.js';
import { Sessions } from '../../src/service/access/sessions.js';
import { tokenHash, TokenStore } from '../../src/service/access/token-store.js';
import type { ServiceError } from '../../src/service/errors.js';
import { openStore } from '../../src/service/store/open.js';

let clock = Date.parse('2026-06-01T12:00:00Z');
const now = () => new Date(clock);
const hour = 3_600_000;

describe('wrong tokens of an address', () => {
  it('are counted to ten in a minute, each address by itself', () => {
    const attempts = new Attempts(now);
    expect(attempts.waitFor('a')).toBe(0);
    for (let count = 1; count <= 9; count++) attempts.fail('a');
    expect(attempts.waitFor('a')).toBe(0);
    clock += 10_500;
    attempts.fail('a');
    expect([attempts.waitFor('a'), attempts.waitFor('b')]).toEqual([50, 0]);
    clock += 49_499;
    expect(attempts.waitFor('a')).toBe(1);
    clock += 1;
    expect(attempts.waitFor('a')).toBe(0);
    attempts.fail('a');
    expect(attempts.waitFor('a')).toBe(0);
  });

  it('are forgotten of the address that failed longest ago when there are too many', () => {
    const attempts = new Attempts(now);
    for (let count = 0; count < 10; count++) attempts.fail('first');
    for (let at = 0; at < 9_999; at++) attempts.fail(`other ${at}`);
    expect(attempts.waitFor('first')).toBe(60);
    attempts.fail('one more');
    expect(attempts.waitFor('first')).toBe(0);
  });
});

describe('sessions', () => {
  it('lead to the token that opened them, for twelve hours', () => {
    const sessions = new Sessions(now);
    const [one, other] = [sessions.open('hash one'), sessions.open('hash two')];
    expect(one).toMatch(/^[\w-]{43}$/);
    expect([sessions.hashOf(one), sessions.hashOf(other), sessions.hashOf('nobody')]).toEqual([
      'hash one',
      'hash two',
      undefined,
    ]);
    clock += 12 * hour - 1;
    expect(sessions.hashOf(one)).toBe('hash one');
    clock += 1;
    expect(sessions.hashOf(one)).toBe(undefined);
  });

  it('end when they are closed, or when a thousand others were opened since', () => {
    const sessions = new Sessions(now);
    const [closed, first] = [sessions.open('a'), sessions.open('b')];
    sessions.close(closed);
    expect([sessions.hashOf(closed), sessions.hashOf(first)]).toEqual([undefined, 'b']);
    for (let at = 0; at < 999; at++) sessions.open('c');
    expect(sessions.hashOf(first)).toBe('b');
    sessions.open('c');
    expect(sessions.hashOf(first)).toBe(undefined);
  });
});

describe('tokens', () => {
  let home: string;
  let open: OpenTokens;
  beforeEach(() => {
    home = mkdtempSync(join(tmpdir(), 'callers-'));
    open = openTokens(home);
  });
  afterEach(() => {
    open.close();
    rmSync(home, { recursive: true, force: true });
  });

  it('count until they are revoked, for whom they were made', () => {
    const { tokens } = open;
    expect(tokens.any()).toBe(false);
    const token = tokens.add('build', 'editor')!;
    expect(token).toMatch(/^sxt-[\w-]{43}$/);
    expect(tokens.any()).toBe(true);
    expect(tokens.holderOf(token)).toEqual({ name: 'build', role: 'editor' });
    expect(tokens.holderOfHash(tokenHash(token))).toEqual({ name: 'build', role: 'editor' });
    expect([tokens.holderOf('sxt-other'), tokens.holderOf(tokenHash(token))]).toEqual([undefined, undefined]);
    expect([tokens.revoke('build'), tokens.revoke('build'), tokens.revoke('nobody')]).toEqual([
      true,
      false,
      false,
    ]);
    expect([tokens.holderOf(token), tokens.any()]).toEqual([undefined, false]);
  });

  it('have one name each, which is free again when its token was revoked', () => {
    const { tokens } = open;
    const first = tokens.add('build', 'admin')!;
    expect(tokens.add('build', 'viewer')).toBe(undefined);
    expect(tokens.holderOf(first)?.role).toBe('admin');
    tokens.revoke('build');
    const second = tokens.add('build', 'viewer')!;
    expect(second).not.toBe(first);
    expect([tokens.holderOf(first), tokens.holderOf(second)?.role]).toEqual([undefined, 'viewer']);
    expect(tokens.list()).toHaveLength(1);
  });

  it('are listed by name, with what they may do and when they were used, not with what they are', () => {
    const store = openStore(home);
    const tokens = new TokenStore(store.db, now);
    const at = () => new Date(clock).toISOString();
    const made = at();
    const token = tokens.add('b', 'viewer')!;
    tokens.add('a', 'admin');
    expect(tokens.list()).toEqual([
      { name: 'a', role: 'admin', createdAt: made, lastUsedAt: null, revokedAt: null },
      { name: 'b', role: 'viewer', createdAt: made, lastUsedAt: null, revokedAt: null },
    ]);
    const used = () => tokens.list()[1]?.lastUsedAt;
    tokens.holderOf(token);
    const first = at();
    expect(used()).toBe(first);
    clock += 59_999;
    tokens.holderOf(token);
    expect(used()).toBe(first);
    clock += 1;
    tokens.holderOf(token);
    expect(used()).toBe(at());
    expect(tokens.list()[0]?.lastUsedAt).toBe(null);
    tokens.revoke('b');
    expect(tokens.list()[1]).toMatchObject({ revokedAt: at() });
    expect(tokens.list()[0]).toMatchObject({ revokedAt: null });
    store.close();
  });

  it('are kept as their hash alone', () => {
    expect(tokenHash('sxt-1')).toBe('5f98c7d4cc72061c475104647ffac8deef62ec83dbf5a63c910fcdbbb4b4cace');
  });

  describe('of a request', () => {
    const answered = () => {
      const headers = new Map<string, string>();
      const setHeader = (name: string, value: string) => headers.set(name, value);
      return { headers, response: { setHeader } as unknown as Response };
    };
    const from = (headers: Request['headers'], ip: string | undefined = '10.0.0.1') =>
      ({ headers, ip }) as unknown as Request;
    const bearer = (token: string) => ({ authorization: `Bearer ${token}` });
    /** What a guard makes of a request: who it comes from, or the error. */
    const guarded = (access: Access, request: Request) => {
      const { headers, response } = answered();
      let passed = 0;
      try {
        void access.guard()(request, response, () => passed++);
        expect(passed).toBe(1);
        return { caller: callerOf(request), headers };
      } catch (error) {
        const { code, message, fix } = error as ServiceError;
        return { code, message, fix, headers };
      }
    };
    const wrong = {
      code: 'unauthenticated',
      message: 'This token is not valid here.',
      fix: expect.stringContaining('revoked'),
    };
    const none = {
      code: 'unauthenticated',
      message: 'This service requires a token, but none was sent.',
      fix: expect.stringContaining('SYNDEXA_TOKEN'),
    };

    it('need not be given where none is required', () => {
      const access = new Access(open.tokens, false, now);
      expect(guarded(access, from({})).caller).toBe(undefined);
      expect(access.stillCounts(from({}))).toBe(true);
      const { response, headers } = answered();
      const machine = { who: 'this machine', role: 'admin', required: false };
      expect(access.session(from({}), response)).toEqual(machine);
      expect(access.signIn(from({}), response, 'anything')).toEqual(machine);
      expect(headers.size).toBe(0);
      expect(() => demandRole(from({}), 'admin')).not.toThrow();
    });

    it('are in its Authorization header, and say who it comes from', () => {
      const token = open.tokens.add('build', 'editor')!;
      const access = new Access(open.tokens, true, now);
      const request = from(bearer(token));
      expect(guarded(access, request).caller).toEqual({ name: 'build', role: 'editor' });
      expect(guarded(access, from({ authorization: `bearer ${token}` })).caller?.name).toBe('build');
      expect(access.session(request, answered().response)).toEqual({
        who: 'build',
        role: 'editor',
        required: true,
      });
      expect(access.stillCounts(request)).toBe(true);
      open.tokens.revoke('build');
      expect(access.stillCounts(request)).toBe(false);
      expect(guarded(access, request)).toMatchObject(wrong);
    });

    it.each([
      ['another scheme', (token: string) => `Basic ${token}`],
      ['nothing before it', (token: string) => token],
      ['something after it', (token: string) => `Bearer ${token} x`],
      ['something before the scheme', (token: string) => `x Bearer ${token}`],
      ['odd characters', (token: string) => `Bearer ${token}%`],
      ['too much', (token: string) => `Bearer ${token}${'x'.repeat(200)}`],
    ])('do not count with %s', (_, written) => {
      const token = open.tokens.add('build', 'editor')!;
      const access = new Access(open.tokens, true, now);
      const { headers, ...error } = guarded(access, from({ authorization: written(token) }));
      expect(error).toMatchObject(wrong);
      expect(headers.get('WWW-Authenticate')).toBe('Bearer realm="syndexa"');
    });

    it('are asked for when there is none, which is no guess', () => {
      const access = new Access(open.tokens, true, now);
      for (let count = 0; count < 12; count++) {
        const { headers, ...error } = guarded(access, from({}));
        expect(error).toMatchObject(none);
        expect(headers.get('WWW-Authenticate')).toBe('Bearer realm="syndexa"');
      }
      const token = open.tokens.add('build', 'editor')!;
      expect(guarded(access, from(bearer(token))).caller?.name).toBe('build');
    });

    it('may be guessed ten times a minute from one address, by whichever way', () => {
      const token = open.tokens.add('build', 'editor')!;
      const access = new Access(open.tokens, true, now);
      for (let count = 0; count < 5; count++) {
        expect(guarded(access, from(bearer('sxt-guess')))).toMatchObject(wrong);
        expect(() => access.signIn(from({}), answered().response, 'sxt-guess')).toThrow(
          expect.objectContaining({ code: 'unauthenticated' }),
        );
      }
      const limited = guarded(access, from(bearer(token)));
      expect(limited).toMatchObject({
        code: 'too-many',
        message: 'Too many wrong tokens came from this address.',
        fix: 'Wait 60 seconds, then try again with the right one.',
      });
      expect(limited.headers.get('Retry-After')).toBe('60');
      expect(guarded(access, from(bearer(token), '10.0.0.2')).caller?.name).toBe('build');
      expect(guarded(access, from({}))).toMatchObject(none);
      clock += 60_000;
      expect(guarded(access, from(bearer(token))).caller?.name).toBe('build');
    });

    it('count together where the address is not known', () => {
      const access = new Access(open.tokens, true, now);
      const unknown = () => ({ headers: bearer('sxt-guess'), ip: undefined }) as unknown as Request;
      for (let count = 0; count < 10; count++) guarded(access, unknown());
      expect(guarded(access, unknown())).toMatchObject({ code: 'too-many' });
    });

    it('open a session, whose cookie counts as long as the token does', () => {
      const token = open.tokens.add('ana', 'viewer')!;
      const access = new Access(open.tokens, true, now);
      const { response, headers } = answered();
      expect(access.signIn(from({}), response, token)).toEqual({
        who: 'ana',
        role: 'viewer',
        required: true,
      });
      const set = headers.get('Set-Cookie') ?? '';
      expect(set).toMatch(/^syndexa_session=[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict; Max-Age=43200$/);
      const cookie = set.split(';')[0]!;
      expect(guarded(access, from({ cookie })).caller?.name).toBe('ana');
      expect(guarded(access, from({ cookie: `other=1; ${cookie}; more=2` })).caller?.name).toBe('ana');
      expect(guarded(access, from({ cookie: `x${cookie}` }))).toMatchObject(none);
      expect(guarded(access, from({ cookie: `${cookie}%` }))).toMatchObject(none);
      expect(guarded(access, from({ cookie: 'syndexa_session=short' }))).toMatchObject(none);
      expect(guarded(access, from({ cookie, ...bearer('sxt-wrong') }))).toMatchObject(wrong);
      open.tokens.revoke('ana');
      expect(guarded(access, from({ cookie }))).toMatchObject(none);
    });

    it('close a session, whose cookie is taken back', () => {
      const token = open.tokens.add('ana', 'viewer')!;
      const access = new Access(open.tokens, true, now);
      const { response, headers } = answered();
      access.signIn(from({ origin: 'https://ads.brine.example' }), response, token);
      expect(headers.get('Set-Cookie')).toMatch(/; Secure$/);
      const plain = answered();
      access.signIn(from({ origin: 'http://localhost:4990' }), plain.response, token);
      expect(plain.headers.get('Set-Cookie')).not.toContain('Secure');
      const cookie = headers.get('Set-Cookie')!.split(';')[0]!;
      const away = answered();
      access.signOut(from({ cookie }), away.response);
      expect(away.headers.get('Set-Cookie')).toBe(
        'syndexa_session=; Path=/; HttpOnly; SameSite=Strict; Max-Age=0',
      );
      expect(guarded(access, from({ cookie }))).toMatchObject(none);
      expect(() => access.signOut(from({}), answered().response)).not.toThrow();
    });

    it('say what their holder may do', () => {
      const access = new Access(open.tokens, true, now);
      const request = from(bearer(open.tokens.add('build', 'editor')!));
      guarded(access, request);
      expect(() => demandRole(request, 'viewer')).not.toThrow();
      expect(() => demandRole(request, 'editor')).not.toThrow();
      expect(() => demandRole(request, 'admin')).toThrow(
        expect.objectContaining({
          code: 'forbidden',
          message: 'build is an editor, but this needs an admin.',
          fix: 'Ask the administrator of the service for another token: syndexa token add NAME --role admin.',
        }),
      );
      const viewer = from(bearer(open.tokens.add('ana', 'viewer')!));
      guarded(access, viewer);
      expect(() => demandRole(viewer, 'editor')).toThrow('ana is a viewer, but this needs an editor.');
    });
  });
});
