import { packageFor } from '../../network/for-stack.js';
import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** The SDK itself is not among the dependencies. */
export const dependencyMissing = defineRule({
  meta: {
    id: 'build/dependency-missing',
    severity: 'blocker',
    ifShipped: 'Code that uses the SDK does not compile. Without such code no ad is ever requested.',
    mend: 'Add the dependency next to the others of this tree.',
    byWiring: 'Run syndexa wire: it adds the dependency.',
    messages: { missing: '{network} is enrolled, but {variants} do not depend on {dependency}.' },
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
            : iosNames(profile.ios?.pods ?? [], profile.ios?.packages ?? []);
        for (const { names, text } of wanted) {
          const covered = new Set(
            scope.facts
              .filter((fact) => fact.kind === 'dependency' && names.includes(fact.name ?? ''))
              .flatMap(({ variants }) => variants),
          );
          const variants = edition.variants.map(({ name }) => name).filter((name) => !covered.has(name));
          if (variants.length === 0) continue;
          const data = { network: profile.name, variants: listed(variants), dependency: text };
          yield {
            platform,
            module: edition.module,
            variants,
            network: profile.id,
            place: edition.home,
            message: 'missing',
            data,
          };
        }
      }
    }
  },
});

/** On iOS a pod or a package will do. */
function iosNames(
  pods: readonly { name: string; version: string }[],
  packages: readonly { product: string }[],
) {
  if (pods.length + packages.length === 0) return [];
  const [pod] = pods;
  const text = pod
    ? `the pod ${pod.name} ${pod.version} (or the Swift package)`
    : `the Swift package ${packages[0]?.product ?? ''}`;
  return [{ names: [...pods.map(({ name }) => name), ...packages.map(({ product }) => product)], text }];
}
