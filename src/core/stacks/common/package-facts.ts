import type { Place } from '../../facts/evidence.js';
import type { Fact, SurveyEdition } from '../../facts/model.js';

/** What a lock file says of a declared package: at which version it is held, or that it is not. */
export interface LockState {
  /** The name of the lock file, such as `pubspec.lock`. */
  lock: string;
  /** Whether there is such a file. */
  exists: boolean;
  held: { version: string; place: Place } | undefined;
}

/** A network's package that a manifest of a package manager declares. */
interface AskedPackage {
  network: string;
  name: string;
  /** The range, or where the package comes from. */
  value: string;
  place: Place;
  /** The manifest that asks, by its name. */
  manifest: string;
  /** None where a lock has nothing to say of it: it comes from a folder beside. */
  locks: readonly LockState[];
}

/** A fact that holds in every variant of every edition that is built from the same packages. */
export type SharedFact = EachWithoutEdition<Fact>;
type EachWithoutEdition<One> = One extends Fact ? Omit<One, 'platform' | 'module' | 'variants'> : never;

/** The facts of a package: that it is declared, and what each lock holds. */
export function packageFacts({ network, name, value, place, manifest, locks }: AskedPackage): SharedFact[] {
  const step = { what: manifest, value: `${name} ${value}`.trim(), place };
  const base = { network, name, effective: true as const };
  return [
    { ...base, kind: 'dependency', value, place, chain: [step] },
    ...locks.map(({ lock, exists, held }): SharedFact => ({
      ...base,
      kind: 'resolved-version',
      value: held?.version ?? '',
      lock,
      state: held ? 'locked' : exists ? 'missing' : 'no-lock',
      place: held?.place ?? place,
      chain: held ? [step, { what: lock, value: held.version, place: held.place }] : [step],
    })),
  ];
}

/** The version of the framework that a tree is built with, or the range of them that it allows. */
export function frameworkFact(name: string, value: string, place: Place, what: string): SharedFact {
  const chain = [{ what, value, place }];
  return { kind: 'framework', network: null, name, value, effective: true, place, chain };
}

/** Facts of a manifest that several editions are built from, repeated for each edition. */
export function inEditions(facts: readonly SharedFact[], editions: readonly SurveyEdition[]): Fact[] {
  return editions.flatMap(({ platform, module, variants }) =>
    facts.map((fact) => ({
      ...fact,
      platform,
      module,
      variants: variants.map(({ name }) => name),
    })),
  );
}
