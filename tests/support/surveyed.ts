import type { CheckContext, Report, Rule } from '../../src/core/checks/model.js';
import type { Fact, Survey, SurveyEdition, Unresolved } from '../../src/core/facts/model.js';
import type { Profile } from '../../src/core/network/model.js';
import { recogniser } from '../../src/core/network/recognise.js';
import type { Platform } from '../../src/core/words/words.js';
import { kelp, profiles } from './titles.js';

// Surveys that are put together by hand: what a rule says of facts, without the tree that they are read from.

export const place = (path = 'a', line = 1, column = 1) => ({ path, line, column });

/** An edition with a variant for testing, one that ships, and one of no stage. */
export function edition(platform: Platform, module = 'app'): SurveyEdition {
  return {
    platform,
    stack: platform,
    module,
    identifier: 'example.brine.kelp',
    identifiers: { debug: 'example.brine.kelp' },
    variants: ['debug', 'beta', 'release'].map((name) => ({
      name,
      type: name,
      flavours: [],
      stage: name === 'release' ? 'production' : name === 'debug' ? 'test' : null,
      stageWhy: '',
    })),
    home: place(),
  };
}

/** A fact of Cobalt Heron in the debug build, with what matters to a test put in. */
export function fact(kind: string, more: object = {}): Fact {
  return {
    kind,
    network: 'cobalt-heron',
    platform: 'android',
    module: 'app',
    variants: ['debug'],
    value: 'x',
    effective: true,
    place: place(),
    chain: [],
    ...more,
  } as unknown as Fact;
}

/** What rules are run on: a survey of both editions with these facts, and what matters to a test. */
export function contextOf(
  facts: Fact[] = [],
  { unresolved = [], ...more }: Partial<CheckContext> & { unresolved?: Unresolved[] } = {},
): CheckContext {
  return {
    survey: {
      facts,
      editions: [edition('android'), edition('ios')],
      problems: [],
      unresolved,
      stacks: [],
    } as unknown as Survey,
    profiles,
    recogniser: recogniser(profiles),
    title: kelp(),
    titleId: 'kelp',
    inventories: [],
    now: '2026-06-01T12:00:00Z',
    ...more,
  };
}

/** As `contextOf`, where Cobalt Heron needs this of a platform's builds beside what it needs anyway. */
export function needing(
  platform: Platform,
  needs: object,
  facts: Fact[] = [],
  more: Parameters<typeof contextOf>[1] = {},
): CheckContext {
  const changed = profiles.map((profile) =>
    profile.id === 'cobalt-heron' ? { ...profile, [platform]: { ...profile[platform], ...needs } } : profile,
  );
  return contextOf(facts, { profiles: changed as Profile[], ...more });
}

/** What a rule reports, as it does before the reports are put in order and merged. */
export function reportsOf(rule: Rule, context: CheckContext): Report[] {
  return [...rule.run(context)];
}
