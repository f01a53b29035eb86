import type { IdKindName } from '../network/model.js';
import type { Recognised } from '../network/recognise.js';
import { isWhereBuildLooks } from '../facts/effective.js';
import { isIdFact, type Fact, type FactOf } from '../facts/model.js';
import type { CheckContext } from './model.js';

/** What an app-ID fact's value is, as its network sees it. */
export type AppIdReading =
  | { is: 'right-kind'; recognised: Recognised }
  | { is: 'other-kind'; kind: IdKindName }
  | { is: 'other-platform'; recognised: Recognised }
  | { is: 'white-space' }
  | { is: 'placeholder' }
  | { is: 'unknown' };

const placeholderText =
  /^$|your|placeholder|insert|replace|change.?me|todo|fixme|xxx|<.*>|\$\{|\{\{|app.?id.?here|^(test|none|null|undefined)$/i;

/** Judges the value of an app-ID fact. Exactly one rule reports each reading. */
export function readAppId(fact: Fact, { recogniser }: CheckContext): AppIdReading {
  if (fact.value !== fact.value.trim() && fact.value.trim() !== '') return { is: 'white-space' };
  const mine = recogniser
    .recognise(fact.value, fact.network ?? undefined)
    .filter(({ network }) => network === fact.network);
  const app = mine.find(({ kind }) => kind === 'app');
  if (app) {
    const platform = app.platform ?? app.sample?.[0]?.platform;
    const fits =
      app.sample && !app.platform
        ? app.sample.some((sample) => sample.platform === fact.platform)
        : platform === undefined || platform === fact.platform;
    return fits ? { is: 'right-kind', recognised: app } : { is: 'other-platform', recognised: app };
  }
  if (mine[0]) return { is: 'other-kind', kind: mine[0].kind };
  return { is: placeholderText.test(fact.value.trim()) ? 'placeholder' : 'unknown' };
}

/** The app IDs that a survey found, those included that no build uses. */
export function appIdFacts({ survey }: CheckContext): FactOf<'app-id'>[] {
  return survey.facts.filter((fact) => fact.kind === 'app-id');
}

/** Whether a fact is an ID that the build would use: a unit ID, or an app ID in its place and of the right kind. */
export function carriesId(fact: Fact, context: CheckContext): fact is FactOf<'app-id' | 'unit-id'> {
  if (!isIdFact(fact) || !isWhereBuildLooks(fact)) return false;
  return fact.kind === 'unit-id' || readAppId(fact, context).is === 'right-kind';
}
