import type { Effective } from '../../../facts/effective.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { attribute } from '../../../formats/xml/query.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { Tree } from '../../../tree/tree.js';
import type { ManifestBuild, ValueOutcome } from './model.js';
import { mergedElements, removedElements, type RemovedElement } from './merge.js';

/** The fact about an element that a directive removes. */
export function removedFact(
  tree: Tree,
  { module, variant }: ManifestBuild,
  { key, directive, file, element }: RemovedElement,
) {
  const place = placeAt(file.path, tree.text(file.path), element);
  const effective: Effective = { reason: 'removed', about: directive };
  const chain: ChainStep[] = [{ what: `manifest of ${file.sourceSet}`, value: directive, place }];
  return { platform: 'android' as const, module, variants: [variant], value: key, effective, place, chain };
}

/** Permissions that profiles name, and the directives that remove them. */
export function permissionFacts(tree: Tree, build: ManifestBuild, { profiles }: SurveyContext): Fact[] {
  const { files, module, variant } = build;
  const wanted = new Set(
    profiles.flatMap((profile) => profile.android?.permissions.map(({ name }) => name) ?? []),
  );
  const facts: Fact[] = [];
  for (const { key, sources, attributes } of mergedElements(files, 'uses-permission', 'manifest')) {
    const [source] = sources;
    if (!source || !wanted.has(key)) continue;
    const place = placeAt(source.file.path, tree.text(source.file.path), source.element);
    facts.push({
      kind: 'permission',
      network: null,
      platform: 'android',
      module,
      variants: [variant],
      name: key,
      value: key,
      ...(attributes.has('maxSdkVersion') ? { maxSdk: attributes.get('maxSdkVersion')?.value ?? '' } : {}),
      effective: true,
      place,
      chain: [{ what: 'manifest', value: key, place }],
    });
  }
  for (const removed of removedElements(files, 'uses-permission', 'manifest'))
    if (wanted.has(removed.key))
      facts.push({
        ...removedFact(tree, build, removed),
        kind: 'permission',
        network: null,
        name: removed.key,
      });
  return facts;
}

/** Components that profiles name, and the application class. */
export function componentFacts(tree: Tree, build: ManifestBuild, { profiles }: SurveyContext): Fact[] {
  const { files, module, variant } = build;
  const base = { platform: 'android' as const, module, variants: [variant], effective: true as const };
  const main = files.find(({ library }) => !library)?.document.root;
  const namespace = build.namespace ?? (main ? (attribute(main, 'package')?.value ?? null) : null);
  const facts: Fact[] = [];
  for (const kind of ['activity', 'service', 'receiver', 'provider'] as const) {
    const wanted = profiles.flatMap(({ id, android }) =>
      (android?.components ?? []).filter((item) => item.kind === kind).map(({ name }) => ({ id, name })),
    );
    if (wanted.length === 0) continue;
    for (const { key, sources, attributes } of mergedElements(files, kind)) {
      const [source] = sources;
      const full = className(key, namespace);
      const owner = wanted.find(({ name }) => name === full);
      if (!source || !owner) continue;
      const place = placeAt(source.file.path, tree.text(source.file.path), source.element);
      const chain = [{ what: 'manifest', value: key, place }];
      const given = Object.fromEntries([...attributes].map(([name, { value }]) => [name, value]));
      const places = Object.fromEntries(
        [...attributes]
          .filter(([, { file }]) => !file.library)
          .map(
            ([
              name,
              {
                file,
                attribute: { valueSpan },
              },
            ]) => [name, placeAt(file.path, tree.text(file.path), valueSpan)],
          ),
      );
      const own = { network: owner.id, name: kind, value: full, attributes: given, places };
      facts.push({ ...base, kind: 'component', ...own, place, chain });
    }
    for (const removed of removedElements(files, kind)) {
      const full = className(removed.key, namespace);
      const owner = wanted.find(({ name }) => name === full);
      if (!owner) continue;
      const fact = removedFact(tree, build, removed);
      facts.push({ ...fact, kind: 'component', network: owner.id, name: kind, value: full });
    }
  }
  return [...facts, ...applicationFacts(tree, build, profiles, base, namespace)];
}

/** The label and the class of the application. */
function applicationFacts(
  tree: Tree,
  build: ManifestBuild,
  profiles: SurveyContext['profiles'],
  base: Pick<Fact, 'platform' | 'module' | 'variants'> & { effective: true },
  namespace: string | null,
): Fact[] {
  const facts: Fact[] = [];
  const [application] = mergedElements(build.files, 'application');
  const label = application?.attributes.get('label');
  if (label) {
    const place = placeAt(label.file.path, tree.text(label.file.path), label.attribute);
    const chain: ChainStep[] = [{ what: 'manifest', value: label.value, place }];
    const filled = fillPlaceholders(label.value, build, chain).value ?? '';
    const resource = /^@string\/([\w.]+)$/.exec(filled)?.[1];
    const found = resource === undefined ? undefined : build.string(resource);
    const value = found?.value ?? filled;
    if (found) chain.push(found.step);
    if (value !== '' && !value.startsWith('@') && !value.includes('${'))
      facts.push({ ...base, kind: 'app-label', network: null, value, place, chain });
  }
  const name = application?.attributes.get('name');
  if (name) {
    const place = placeAt(name.file.path, tree.text(name.file.path), name.attribute);
    const chain: ChainStep[] = [{ what: 'manifest', value: name.value, place }];
    const filled = fillPlaceholders(name.value, build, chain);
    const value = className(filled.value ?? name.value, namespace);
    const owner = profiles.find(({ android }) => android?.application?.class === value);
    facts.push({ ...base, kind: 'application-class', network: owner?.id ?? null, value, place, chain });
  }
  return facts;
}

/** `.App` and `App` belong to the module's namespace. */
export function className(written: string, namespace: string | null): string {
  if (namespace === null || (written.includes('.') && !written.startsWith('.'))) return written;
  return `${namespace}.${written.replace(/^\./, '')}`;
}

/** Replaces manifest placeholders, as the manifest merger does. */
export function fillPlaceholders(text: string, build: ManifestBuild, chain: ChainStep[]): ValueOutcome {
  if (!text.includes('${')) return { value: text, chain };
  let failed: string | undefined;
  const value = text.replace(/\$\{([^}]{1,100})\}/g, (whole, name: string) => {
    const found = build.placeholder(name);
    if (found?.value != null) {
      chain.push(...found.chain.map((step) => ({ ...step, what: `placeholder ${name}` })));
      return found.value;
    }
    if (found) chain.push(...found.chain);
    failed ??=
      found && 'reason' in found
        ? `the placeholder ${name}: ${found.reason}`
        : `no script sets the placeholder ${name}`;
    return whole;
  });
  return failed === undefined ? { value, chain } : { value: null, reason: failed, chain };
}
