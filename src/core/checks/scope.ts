import type { Profile } from '../network/model.js';
import type { Platform, Stage } from '../words/words.js';
import { profileFor } from '../network/for-stack.js';
import { platforms } from '../words/words.js';
import { expectedIds, isEnrolled, type ExpectedId } from '../roster/expected.js';
import type { Title } from '../roster/model.js';
import { neededBy } from '../roster/needed.js';
import type { Fact, SurveyEdition, Unresolved, Variant } from '../facts/model.js';
import { editionOf } from '../roster/modules.js';
import type { CheckContext } from './model.js';

/** A title's edition as found in the tree. */
export interface EditionScope {
  title: Title;
  platform: Platform;
  edition: SurveyEdition;
  /** The networks that the title wires into this edition, each as its stack has to meet it. */
  networks: Profile[];
  expected: ExpectedId[];
  facts: Fact[];
}

/** Scopes by the run that they are made for: almost every rule asks for them. */
const made = new WeakMap<CheckContext, readonly EditionScope[]>();

/** The title's editions that the tree builds. */
export function editionScopes(context: CheckContext): readonly EditionScope[] {
  const scopes = made.get(context) ?? scopesOf(context);
  made.set(context, scopes);
  return scopes;
}

function scopesOf({ survey, title, profiles }: CheckContext): EditionScope[] {
  if (!title) return [];
  return platforms.flatMap((platform): EditionScope[] => {
    const edition = editionOf(survey.editions, title, platform);
    if (!edition) return [];
    const networks = profiles
      .filter(({ id }) => isEnrolled(title, id, platform))
      .map((profile) => profileFor(neededBy(title, profile), edition.stack));
    const facts = survey.facts.filter((fact) => fact.platform === platform && fact.module === edition.module);
    return [{ title, platform, edition, networks, expected: expectedIds(title, profiles, platform), facts }];
  });
}

/** The variants of a fact, by stage. */
export function variantsAt({ edition }: EditionScope, names: readonly string[], stage: Stage): string[] {
  return edition.variants
    .filter((variant) => variant.stage === stage && names.includes(variant.name))
    .map(({ name }) => name);
}

export function stagedVariants({ edition }: EditionScope, stage: Stage): Variant[] {
  return edition.variants.filter((variant) => variant.stage === stage);
}

/** The variants of an edition that have none of some facts, and of those the ones from which a directive removes it. */
export function lackingVariants(
  { edition }: EditionScope,
  facts: readonly (Pick<Fact, 'variants'> & {
    effective?: Fact['effective'] | undefined;
    cause?: Unresolved['cause'];
  })[],
): string[] {
  const covered = new Set(
    facts
      .filter(
        ({ effective, cause }) => (effective === undefined || effective === true) && cause === undefined,
      )
      .flatMap(({ variants }) => variants),
  );
  return edition.variants.map(({ name }) => name).filter((name) => !covered.has(name));
}

/** A directive that removes what a network needs, with the variants that lack it for this reason. */
export interface RemovalReport {
  fact: Fact;
  directive: string;
  variants: string[];
}

/** The directives that remove something from variants that lack it, each once. */
export function removalsAmong(facts: readonly Fact[], lacking: readonly string[]): RemovalReport[] {
  const reports = new Map<string, RemovalReport>();
  for (const fact of facts) {
    if (fact.effective === true || fact.effective.reason !== 'removed') continue;
    const variants = fact.variants.filter((name) => lacking.includes(name));
    if (variants.length === 0) continue;
    const key = `${fact.place.path} ${fact.place.line} ${fact.place.column}`;
    const known = reports.get(key);
    if (known) known.variants.push(...variants.filter((name) => !known.variants.includes(name)));
    else reports.set(key, { fact, directive: fact.effective.about ?? '', variants });
  }
  return [...reports.values()];
}

/** What a report takes over from a fact. */
export function fromFact(fact: Fact) {
  const { platform, module, variants, network, place, chain } = fact;
  return { platform, module, variants, network, placement: fact.placement ?? null, place, chain };
}

/** As `fromFact`, at the place that a person edits to change the value; what refers to it is in the chain. */
export function fromValue(fact: Fact) {
  const written = fact.chain.findLast(
    ({ value, place }) => place !== null && value?.trim() === fact.value.trim(),
  );
  return { ...fromFact(fact), place: written?.place ?? fact.place };
}

/** The name people know a network by. */
export function networkName({ profiles }: CheckContext, id: string | null): string {
  return profiles.find((profile) => profile.id === id)?.name ?? id ?? 'no network';
}

/** More names than this are cut in a message; findings have them all. */
const maxListed = 6;

/** Names for a message: `debug`, `debug and release`, `debug, beta and release`, or the first four and how many more. */
export function listed(names: readonly string[], most = maxListed): string {
  if (names.length <= 1) return names[0] ?? '';
  if (names.length > most) return `${names.slice(0, 4).join(', ')} and ${names.length - 4} more`;
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
