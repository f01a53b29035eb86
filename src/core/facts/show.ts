import type { FactDefinition } from './define.js';
import { ineffectiveText } from './effective.js';
import { factDefinitions } from './kinds/index.js';
import type { Fact, FactKind } from './model.js';

type AnyDefinition = FactDefinition<string, Record<string, never>>;

const definitions = new Map<string, AnyDefinition>(
  factDefinitions.map((definition) => [definition.kind, definition as unknown as AnyDefinition]),
);
const kinds: readonly string[] = factDefinitions.map(({ kind }) => kind);

/** What facts of a kind are called in front of people. */
export function labelOf(kind: FactKind): string {
  return definitions.get(kind)?.label ?? kind;
}

/** What tells one thing that facts speak of from another. Facts of several editions may be about the same thing. */
export function identityOf(fact: Fact): string {
  const { kind, network, platform, name, value } = fact;
  const definition = definitions.get(kind);
  const own = definition?.identity ? definition.identity(fact as never) : (name ?? value);
  return JSON.stringify([kind, network, platform, own]);
}

/** Sorts facts in the order in which people read them. */
export function byKind(a: Pick<Fact, 'kind'>, b: Pick<Fact, 'kind'>): number {
  return kinds.indexOf(a.kind) - kinds.indexOf(b.kind);
}

/** What a fact is about, after its label: a placement, a key, a package. */
export function factSubject(fact: Fact): string | undefined {
  const definition = definitions.get(fact.kind);
  return definition?.subject ? definition.subject(fact as never) : (fact.placement ?? fact.name);
}

/** What else there is to say of a fact, as a short phrase; why the build does not use it comes last. */
export function factDetail(fact: Fact): string | undefined {
  const parts = [definitions.get(fact.kind)?.detail?.(fact as never), ineffectiveText(fact.effective)];
  const said = parts.filter((part) => part !== undefined);
  return said.length > 0 ? said.join(', ') : undefined;
}
