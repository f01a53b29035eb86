import { attribute } from '../../../formats/xml/query.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import type { Effective } from '../../../facts/effective.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { Collected, ManifestBuild, ValueOutcome } from './model.js';
import { mergedElements, removedElements, type MergeConflict, type MergedAttribute } from './merge.js';
import { directiveFacts } from './directives.js';
import { metaDataIn, type FoundMetaData } from './found-meta-data.js';
import { metaDataFacts } from './meta-data-entries.js';
import { componentFacts, fillPlaceholders, permissionFacts, removedFact } from './declared-facts.js';

/** App IDs, permissions, components and the application class that the merged manifest of a variant would hold. */
export function manifestFacts(tree: Tree, build: ManifestBuild, context: SurveyContext): Collected {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const { files, module, variant } = build;
  const merged = mergedElements(files, 'meta-data');
  for (const profile of context.profiles) {
    const place = profile.android?.['app-id'];
    if (place?.place !== 'manifest') continue;
    const winner = merged.find(({ key }) => key === place.key);
    const strongest = winner?.sources[0];
    for (const item of metaDataIn(files, place.key)) {
      // Weaker manifests only add to the strongest one's element; twice in that one file is a fault to show.
      if (item.inApplication && item.path !== strongest?.file.path) continue;
      const attributes = item.element === strongest?.element ? winner?.attributes : undefined;
      const outcome = valueOf(tree, build, item, attributes);
      const base = {
        kind: 'app-id' as const,
        network: profile.id,
        platform: 'android' as const,
        module,
        variants: [variant],
        place: placeAt(item.path, tree.text(item.path), item.element),
        chain: outcome.chain,
      };
      const effective: Effective = !item.inApplication
        ? { reason: 'nested', about: holderName(item.element) }
        : outcome.value !== null && outcome.isResource
          ? { reason: 'as-resource', about: 'android:resource' }
          : true;
      if (outcome.value !== null)
        facts.push({ ...base, name: place.key, value: outcome.value, carrier: 'manifest', effective });
      else
        unresolved.push({
          ...base,
          effective,
          what: `the app ID of ${profile.name}`,
          reason: outcome.reason,
          ...(outcome.cause ? { cause: outcome.cause } : {}),
        });
    }
    for (const removed of removedElements(files, 'meta-data').filter(({ key }) => key === place.key))
      facts.push({
        ...removedFact(tree, build, removed),
        kind: 'app-id',
        network: profile.id,
        name: place.key,
        value: '',
        carrier: 'manifest',
      });
    for (const conflict of winner?.conflicts ?? [])
      facts.push(conflictFact(tree, build, profile.id, place.key, conflict));
  }
  facts.push(...permissionFacts(tree, build, context));
  facts.push(...componentFacts(tree, build, context));
  facts.push(...metaDataFacts(tree, build, context));
  facts.push(...directiveFacts(tree, build, context));
  return { facts, unresolved };
}

/** Two manifests give one attribute different values: the merger stops there. */
function conflictFact(
  tree: Tree,
  { module, variant }: ManifestBuild,
  network: string,
  key: string,
  { attribute: name, stronger, weaker }: MergeConflict,
): Fact {
  const step = ({ file, attribute, value }: MergedAttribute): ChainStep => ({
    what: `manifest of ${file.sourceSet}`,
    value,
    place: placeAt(file.path, tree.text(file.path), attribute.valueSpan),
  });
  const chain = [step(stronger), step(weaker)];
  const place = chain[0]?.place ?? { path: stronger.file.path, line: 1, column: 1 };
  return {
    kind: 'merge-conflict',
    network,
    platform: 'android',
    module,
    variants: [variant],
    name: `android:${name} of ${key}`,
    value: `${stronger.value} against ${weaker.value}`,
    effective: true,
    place,
    chain,
  };
}

function holderName(element: XmlElement): string {
  const parent = element.parent;
  if (!parent) return 'nothing';
  const name = parent.attributes.find((candidate) => candidate.name.endsWith(':name'))?.value;
  return name ? `${parent.name} ${name}` : parent.name;
}

/** The value of a meta-data element as the build would put it in: placeholders, then string resources. */
function valueOf(
  tree: Tree,
  build: ManifestBuild,
  { path, element }: FoundMetaData,
  merged: ReadonlyMap<string, MergedAttribute> | undefined,
): ValueOutcome {
  const prefix =
    element.attributes.find(({ name }) => name.endsWith(':name'))?.name.split(':')[0] ?? 'android';
  const given = merged?.get('value') ?? merged?.get('resource');
  const written =
    given?.attribute ?? attribute(element, `${prefix}:value`) ?? attribute(element, `${prefix}:resource`);
  const from = given?.file.path ?? path;
  const document = tree.text(from);
  if (!written) {
    return {
      value: null,
      reason: 'the element has no android:value',
      cause: 'no-value',
      chain: [{ what: 'manifest', value: null, place: placeAt(path, document, element) }],
    };
  }
  const chain: ChainStep[] = [
    { what: 'manifest', value: written.value, place: placeAt(from, document, written.valueSpan) },
  ];
  const filled = fillPlaceholders(written.value, build, chain);
  if (filled.value === null) return filled;
  // The SDK asks for a text; a resource by itself is the number of one (android.R.styleable, "AndroidManifestMetaData").
  const isResource = written.name.endsWith(':resource');
  const reference = /^@(?:\w[\w.]*:)?string\/([\w.]+)$/.exec(filled.value)?.[1];
  if (reference === undefined) return filled;
  const resource = build.string(reference.replace(/\./g, '_')) ?? build.string(reference);
  if (!resource)
    return {
      value: null,
      reason: `no source set of this variant has a string ${reference}`,
      chain,
      ...(build.isComplete ? { cause: 'undefined' as const } : {}),
    };
  chain.push(resource.step);
  return { value: resource.value, chain, isResource };
}
