import { describe, expect, it } from 'vitest';
import { brokenFile } from '../../../src/core/checks/rules/tree-broken-file.js';
import { cannotTell } from '../../../src/core/checks/rules/tree-cannot-tell.js';
import { fileNotRead } from '../../../src/core/checks/rules/tree-file-not-read.js';
import type { Survey, Unresolved } from '../../../src/core/facts/model.js';
import { runChecks } from '../../../src/core/checks/run.js';
import { contextOf, place, reportsOf } from '../../support/surveyed.js';
import { kelp, profiles } from '../../support/titles.js';

describe('a file that is not as it should be', () => {
  const problem = (path: string, line: number, kind: string, message: string) => ({
    path,
    line,
    column: 2,
    kind,
    message,
  });
  const problems = [
    problem('app/src/main/AndroidManifest.xml', 3, 'syntax', 'first'),
    problem('app/src/main/AndroidManifest.xml', 9, 'syntax', 'second'),
    problem('notes.txt', 1, 'conflict', 'conflict markers'),
    problem('app/build.gradle', 1, 'not-read', 'too large'),
    problem('notes.yaml', 4, 'syntax', 'a tab'),
  ];
  const context = () => {
    const made = contextOf();
    return { ...made, survey: { ...made.survey, problems } as Survey };
  };

  it('is told at its first fault when build tools stop at it', () => {
    const path = 'app/src/main/AndroidManifest.xml';
    expect(reportsOf(brokenFile, context())).toEqual([
      {
        place: { path, line: 3, column: 2 },
        message: 'often',
        data: { path, problem: 'first' },
        changing: { more: '1 more place' },
      },
      {
        place: { path: 'notes.txt', line: 1, column: 2 },
        message: 'broken',
        data: { path: 'notes.txt', problem: 'conflict markers' },
      },
    ]);
    expect(runChecks(context(), [brokenFile]).findings.map(({ message }) => message)).toContain(
      `${path} is broken here and in 1 more place: first`,
    );
  });

  it('is told as not read otherwise', () => {
    expect(reportsOf(fileNotRead, context()).map(({ place: at, data }) => [at?.line, data])).toEqual([
      [1, { path: 'app/build.gradle', problem: 'too large' }],
      [4, { path: 'notes.yaml', problem: 'a tab' }],
    ]);
  });
});

describe('a value that cannot be worked out', () => {
  const item = (more: object = {}) =>
    ({
      what: 'the app ID',
      reason: 'a call gives it',
      kind: 'app-id',
      network: 'cobalt-heron',
      platform: 'android',
      module: 'app',
      variants: ['debug', 'release'],
      place: place('a', 4),
      chain: [],
      ...more,
    }) as unknown as Unresolved;
  const told = (one: Unresolved, title: ReturnType<typeof kelp> | null = kelp()) =>
    reportsOf(cannotTell, contextOf([], { title, unresolved: [one] }));

  it('is told with what and why', () => {
    expect(told(item())).toEqual([
      {
        platform: 'android',
        module: 'app',
        variants: ['debug', 'release'],
        network: 'cobalt-heron',
        place: place('a', 4),
        chain: [],
        message: 'open',
        data: { what: 'the app ID', variants: 'debug and release', reason: 'a call gives it' },
      },
    ]);
    expect(told(item({ network: null }))).toHaveLength(1);
    expect(told(item({ cause: 'unread-script' }))).toHaveLength(1);
  });

  it('is nothing of a network that the title does not use', () => {
    expect(told(item({ network: 'marlstone' }))).toEqual([]);
    expect(told(item({ network: 'marlstone' }), null)).toHaveLength(1);
    const onIos = kelp({
      networks: { 'cobalt-heron': { ios: { production: { app: 'CH-I-310772-M6R9V3XC' } } } },
    });
    expect(told(item(), onIos)).toEqual([]);
  });

  it('is another rule’s where there certainly is none, unless no title says that there should be', () => {
    for (const cause of ['undefined', 'no-value']) {
      expect(told(item({ cause }))).toEqual([]);
      expect(told(item({ cause }), null)).toHaveLength(1);
    }
  });

  it('is nothing where it is a Kotlin version and no network asks for one', () => {
    const kotlin = item({ kind: 'kotlin', network: null });
    const asking = (networks: readonly string[], title: ReturnType<typeof kelp> | null = kelp()) => {
      const some = profiles.map((one) =>
        networks.includes(one.id) ? one : { ...one, android: { ...one.android, kotlin: undefined } },
      );
      const context = contextOf([], { title, unresolved: [kotlin], profiles: some as never });
      return reportsOf(cannotTell, context).length;
    };
    expect(profiles.filter(({ android }) => android?.kotlin).map(({ id }) => id)).toContain('marlstone');
    expect(asking([])).toBe(0);
    expect(asking([], null)).toBe(0);
    // A network that the title does not use asks for nothing.
    expect(asking(['marlstone'])).toBe(0);
    expect(asking(['marlstone'], null)).toBe(1);
    const marlstone = { marlstone: { android: { production: { app: 'mrl1-0123456789abcdef01234567' } } } };
    expect(asking(['marlstone'], kelp({ networks: marlstone as never }))).toBe(1);
  });
});
