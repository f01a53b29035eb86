import { isWhereBuildLooks } from '../facts/effective.js';
import type { FactOf } from '../facts/model.js';
import type { EditionScope } from './scope.js';

/** Whether a key is in the property list of the app, where the build takes it from. */
export function isInfoKey(fact: FactOf<'plist-key'>): boolean {
  return fact.list === 'info' && isWhereBuildLooks(fact);
}

/** The variants of an edition whose property list lacks a key. */
export function withoutKey({ facts, edition }: EditionScope, key: string): string[] {
  const held = facts.filter((fact) => fact.kind === 'plist-key' && fact.name === key && isInfoKey(fact));
  return edition.variants
    .map(({ name }) => name)
    .filter((name) => !held.some(({ variants }) => variants.includes(name)));
}
