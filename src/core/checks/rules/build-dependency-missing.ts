import { packageFor } from '../../network/for-stack.js';
import type { Profile } from '../../network/model.js';
import type { Fact } from '../../facts/model.js';
import { defineRule } from '../model.js';
import { editionScopes, listed, type EditionScope } from '../scope.js';

/** The SDK itself is not among the dependencies. */
export const dependencyMissing = defineRule({
  meta: {
    id: 'build/dependency-missing',
    severity: 'blocker',
    ifShipped: 'Code that uses the SDK does not compile. Without such code no ad is ever requested.',
    mend: 'Add the dependency next to the others of this tree.',
    byWiring: 'Run syndexa wire: it adds the dependency.',
    otherMends: {
      widen: 'Declare it for the app of every variant: {line}',
    },
    messages: {
      missing: '{network} is enrolled, but {dependency} is not a dependency of {variants}.',
      narrow:
        '{network} is enrolled, but {dependency} is not a dependency of {variants}: it is declared only by {configuration}.',
    },
    isAbsence: true,
    mayBeInScript: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of scope.networks) {
        const published = packageFor(profile, edition.stack);
        const wanted = published
          ? [{ names: [published.package], text: `the package ${published.package} ${published.version}` }]
          : platform === 'android'
            ? (profile.android?.dependencies.map(({ coordinate, version }) => ({
                names: [coordinate],
                text: `${coordinate}:${version}`,
              })) ?? [])
            : iosNames(scope, profile);
        for (const { names, text } of wanted) {
          const covered = new Set(
            scope.facts
              .filter((fact) => fact.kind === 'dependency' && names.includes(fact.name ?? ''))
              .flatMap(({ variants }) => variants),
          );
          const variants = edition.variants.map(({ name }) => name).filter((name) => !covered.has(name));
          if (variants.length === 0) continue;
          const data = { network: profile.name, variants: listed(variants), dependency: text };
          const base = { platform, module: edition.module, variants, network: profile.id };
          const narrow = narrowest(scope, names, variants);
          yield narrow
            ? { ...base, ...narrow, message: 'narrow', mend: 'widen', data: { ...data, ...narrow.data } }
            : { ...base, place: edition.dependencies ?? edition.home, message: 'missing', data };
        }
      }
    }
  },
});

/** Where a dependency is declared for less than what ships, and the line that declares it for all of it. */
function narrowest({ facts }: EditionScope, names: readonly string[], variants: readonly string[]) {
  const mine = facts.filter(({ name }) => names.includes(name ?? ''));
  const fact =
    mine.find(
      ({ kind, variants: of }) => kind === 'narrow-dependency' && of.some((one) => variants.includes(one)),
    ) ?? mine.find(({ kind }) => kind === 'dependency');
  if (!fact) return undefined;
  const [step] = fact.chain;
  const configuration = fact.kind === 'narrow-dependency' ? fact.value : (step?.what ?? 'dependency');
  return {
    place: fact.place,
    chain: fact.chain,
    data: { configuration, line: wideLine(fact, configuration) },
  };
}

/** The line that declares a dependency for all of a build, in the language of the file that declares it narrowly. */
function wideLine({ name = '', value, kind, place, chain }: Fact, configuration: string): string {
  if (/\.gradle(\.kts)?$/.test(place.path)) {
    const declared = chain[0]?.value ?? name;
    const coordinate = kind === 'dependency' && value !== '' ? `${name}:${value}` : declared;
    return place.path.endsWith('.kts') ? `implementation("${coordinate}")` : `implementation '${coordinate}'`;
  }
  if (/(^|\/)Podfile$/.test(place.path)) return `pod '${name}'${value === '' ? '' : `, '${value}'`}`;
  return configuration === 'dev_dependencies' ? `${chain[0]?.value ?? name} below dependencies` : name;
}

/** On iOS pods or packages will do: all of the form that the tree has, or, where it has none, one of either. */
function iosNames({ facts }: EditionScope, { id, ios }: Profile) {
  const { pods = [], packages = [] } = ios ?? {};
  if (pods.length + packages.length === 0) return [];
  const there = facts.filter(({ kind, network }) => kind === 'dependency' && network === id);
  const has = (name: string) => there.some((fact) => (fact.name ?? '').split('/')[0] === name);
  const [pod] = pods;
  if (pods.some(({ name }) => has(name)))
    return pods.map(({ name, version }) => ({
      names: named(there, name),
      text: `the pod ${name} ${version}`,
    }));
  if (packages.some(({ product }) => has(product)))
    return packages.map(({ product, version }) => ({
      names: [product],
      text: `the Swift package product ${product} ${version}`,
    }));
  const text = pod
    ? `the pod ${pod.name} ${pod.version} (or the Swift package)`
    : `the Swift package ${packages[0]?.product ?? ''}`;
  return [{ names: [...pods.map(({ name }) => name), ...packages.map(({ product }) => product)], text }];
}

/** A pod and its parts, as the tree names them. */
function named(facts: readonly Fact[], pod: string): string[] {
  return [pod, ...facts.map(({ name = '' }) => name).filter((name) => name.startsWith(`${pod}/`))];
}
