import { attribute, descendants, elements, prefixOf } from '../../formats/xml/query.js';
import type { XmlElement } from '../../formats/xml/read.js';
import type { ChainStep, Fact, Unresolved } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import type { Tree } from '../../tree/tree.js';
import type { SurveyContext } from '../stack.js';
import { placeholdersOf } from './placeholders.js';
import { manifestsOf, stringsOf } from './sources.js';
import { moduleName, type Collected } from './facts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

export const androidNamespace = 'http://schemas.android.com/apk/res/android';

/** A meta-data element that bears a key, and the element that holds it. */
export interface FoundMetaData {
  path: string;
  sourceSet: string;
  element: XmlElement;
  /** Whether it stands where keys for the whole app belong: directly in the application element. */
  inApplication: boolean;
}

/** All meta-data of one key in the manifests of a variant, the weakest manifest first. */
export function metaDataOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  key: string,
): FoundMetaData[] {
  return manifestsOf(tree, model, variant).flatMap(({ path, sourceSet, document }) => {
    const { root } = document;
    if (!root) return [];
    const prefix = prefixOf(root, androidNamespace, 'android');
    return [...descendants(root)]
      .filter(
        (element) =>
          element.name === 'meta-data' && attribute(element, `${prefix}:name`)?.value.trim() === key,
      )
      .map((element) => ({
        path,
        sourceSet,
        element,
        inApplication: element.parent?.name === 'application' && element.parent.parent === root,
      }));
  });
}

/** App IDs and permissions that the merged manifest of a variant would hold. */
export function manifestFindings(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const profile of context.profiles) {
    const place = profile.android?.['app-id'];
    if (place?.place !== 'manifest') continue;
    const found = metaDataOf(tree, model, variant, place.key);
    const strongest = found.filter(({ inApplication }) => inApplication).at(-1)?.path;
    for (const item of found) {
      // In the application element a stronger manifest's entry replaces those of weaker ones.
      if (item.inApplication && item.path !== strongest) continue;
      const outcome = valueOf(tree, model, variant, item);
      const base = {
        kind: 'app-id' as const,
        network: profile.id,
        platform: 'android' as const,
        module: moduleName(model),
        variants: [variant.name],
        place: placeAt(item.path, tree.text(item.path), item.element),
        chain: outcome.chain,
      };
      const standsIn = item.inApplication ? 'application' : holderName(item.element);
      if (outcome.value !== null) facts.push({ ...base, name: place.key, value: outcome.value, standsIn });
      else unresolved.push({ ...base, what: `the app ID of ${profile.name}`, reason: outcome.reason });
    }
  }
  facts.push(...permissionFacts(tree, model, variant, context));
  return { facts, unresolved };
}

function holderName(element: XmlElement): string {
  const parent = element.parent;
  if (!parent) return 'nothing';
  const name = parent.attributes.find((candidate) => candidate.name.endsWith(':name'))?.value;
  return name ? `${parent.name} ${name}` : parent.name;
}

type Outcome = { value: string; chain: ChainStep[] } | { value: null; reason: string; chain: ChainStep[] };

/** The value of a meta-data element as the build would put it in: placeholders, then string resources. */
function valueOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { path, element }: FoundMetaData,
): Outcome {
  const document = tree.text(path);
  const prefix =
    element.attributes.find(({ name }) => name.endsWith(':name'))?.name.split(':')[0] ?? 'android';
  const written = attribute(element, `${prefix}:value`) ?? attribute(element, `${prefix}:resource`);
  if (!written) {
    return {
      value: null,
      reason: 'the element has no android:value',
      chain: [{ what: 'manifest', value: null, place: placeAt(path, document, element) }],
    };
  }
  const chain: ChainStep[] = [
    { what: 'manifest', value: written.value, place: placeAt(path, document, written.valueSpan) },
  ];
  const filled = fillPlaceholders(written.value, model, variant, chain);
  if (filled.value === null) return filled;
  const reference = /^@(?:\w[\w.]*:)?string\/([\w.]+)$/.exec(filled.value)?.[1];
  if (reference === undefined) return filled;
  const resource =
    stringsOf(tree, model, variant).get(reference.replace(/\./g, '_')) ??
    stringsOf(tree, model, variant).get(reference);
  if (!resource)
    return { value: null, reason: `no source set of this variant has a string ${reference}`, chain };
  const place = placeAt(resource.path, tree.text(resource.path), resource.resource);
  chain.push({ what: `string ${reference}`, value: resource.resource.raw, place });
  return { value: resource.resource.value, chain };
}

/** Puts manifest placeholders in, as the manifest merger does. */
function fillPlaceholders(
  text: string,
  model: ModuleModel,
  variant: AndroidVariant,
  chain: ChainStep[],
): Outcome {
  if (!text.includes('${')) return { value: text, chain };
  const placeholders = placeholdersOf(model, variant);
  let failed: string | undefined;
  const value = text.replace(/\$\{([^}]{1,100})\}/g, (whole, name: string) => {
    const found = placeholders.get(name);
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

function permissionFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Fact[] {
  const wanted = new Set(
    profiles.flatMap((profile) => profile.android?.permissions.map(({ name }) => name) ?? []),
  );
  const facts = new Map<string, Fact>();
  for (const { path, document } of manifestsOf(tree, model, variant)) {
    const { root } = document;
    if (!root) continue;
    const prefix = prefixOf(root, androidNamespace, 'android');
    for (const element of elements(root, 'uses-permission')) {
      const name = attribute(element, `${prefix}:name`)?.value;
      if (name === undefined || !wanted.has(name) || facts.has(name)) continue;
      const place = placeAt(path, tree.text(path), element);
      const base = {
        kind: 'permission' as const,
        network: null,
        platform: 'android' as const,
        module: moduleName(model),
      };
      facts.set(name, {
        ...base,
        variants: [variant.name],
        name,
        value: name,
        place,
        chain: [{ what: 'manifest', value: name, place }],
      });
    }
  }
  return [...facts.values()];
}
