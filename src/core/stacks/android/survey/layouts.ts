import { attribute, descendants } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { XmlAttribute, XmlElement } from '../../../formats/xml/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact } from '../../../facts/model.js';
import type { Effective } from '../../../facts/effective.js';
import type { Profile } from '../../../network/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { anchorOf, boundTo, coveredBy } from './held.js';
import { layersOf } from './libraries.js';
import { appNamespace } from '../../common/manifest/namespaces.js';
import { qualifiedFiles, stringsOf } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** Views of networks in layouts: the unit IDs and sizes they are given, and where on the screen they are held. */
export function layoutFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const found: Collected = { facts: [], unresolved: [] };
  for (const layer of layersOf(tree, model, variant)) {
    for (const sourceSet of layer.variant.sourceSets) {
      for (const { path } of qualifiedFiles(tree, layer.model, sourceSet, 'layout')) {
        const root = tree.read(path, readXml)?.root;
        for (const element of root ? descendants(root) : [])
          readView({ tree, model, variant, context, path, element, found });
      }
    }
  }
  return found;
}

interface ViewContext {
  tree: Tree;
  model: ModuleModel;
  variant: AndroidVariant;
  context: SurveyContext;
  path: string;
  element: XmlElement;
  found: Collected;
}

/** A view of a network, by its class. */
interface OwnedView {
  id: string;
  known: NonNullable<NonNullable<Profile['android']>['views']>[number];
}

function readView(view: ViewContext): void {
  const { context, element } = view;
  const className = element.name === 'view' ? (attribute(element, 'class')?.value ?? '') : element.name;
  const [owned] = context.profiles.flatMap(({ id, android }) =>
    (android?.views ?? []).filter((known) => known.class === className).map((known) => ({ id, known })),
  );
  if (owned) view.found.facts.push(viewFact(view, className, owned));
  for (const item of element.attributes) readUnit(view, className, item, owned);
}

function baseOf({ model, variant }: ViewContext) {
  return { platform: 'android' as const, module: moduleName(model), variants: [variant.name] };
}

function viewFact(view: ViewContext, className: string, { id: network, known }: OwnedView): Fact {
  const { tree, path, element } = view;
  const place = placeAt(path, tree.text(path), element.openTag);
  const unit = known.unit === undefined ? undefined : localAttribute(element, known.unit)?.value;
  const given = unit === undefined ? null : valueOf(view, unit).value;
  const size = known.size === undefined ? undefined : localAttribute(element, known.size)?.value;
  const covered = coveredBy(element);
  const argument = unit === undefined ? undefined : { written: unit, ids: given === null ? [] : [given] };
  return {
    ...baseOf(view),
    kind: 'banner-view',
    network,
    value: className,
    format: known.format,
    ...(size === undefined ? {} : { size }),
    anchor: anchorOf(element),
    ...(covered === undefined ? {} : { covers: covered }),
    effective: true,
    ...(argument ? { code: { type: null, methods: [], conditions: [], argument } } : {}),
    place,
    chain: [{ what: 'layout', value: className, place }],
  };
}

/** An attribute that gives a unit ID: the one that the view takes it from, or any with an ID in it. */
function readUnit(
  view: ViewContext,
  className: string,
  item: XmlAttribute,
  owned: OwnedView | undefined,
): void {
  const { tree, context, path, element, found } = view;
  const [prefix, local] = item.name.includes(':') ? item.name.split(':') : ['', item.name];
  if (prefix === undefined || local === undefined || prefix === 'xmlns') return;
  const resolved = valueOf(view, item.value);
  const reading =
    resolved.value === null
      ? undefined
      : context.recogniser
          .recognise(resolved.value, owned?.known.unit === local ? owned.id : undefined)
          .find(({ kind }) => kind === 'unit');
  if (owned?.known.unit !== local && !reading) return;
  const place = placeAt(path, tree.text(path), item.valueSpan);
  const chain = [{ what: `layout attribute ${item.name}`, value: item.value, place }, ...resolved.chain];
  const network = reading?.network ?? owned?.id ?? null;
  const effective: Effective =
    prefix === '' ? { reason: 'no-prefix' } : boundAs(prefix, boundTo(element, prefix));
  const fact = { ...baseOf(view), kind: 'unit-id' as const, network, name: item.name, place, chain };
  if (resolved.value === null)
    found.unresolved.push({ ...fact, what: `the unit ID of ${className}`, reason: resolved.reason });
  else found.facts.push({ ...fact, value: resolved.value, carrier: 'layout', effective });
}

function boundAs(prefix: string, namespace: string | undefined): Effective {
  if (namespace === undefined) return { reason: 'undeclared-prefix', about: prefix };
  if (namespace === appNamespace || namespace.startsWith('http://schemas.android.com/apk/lib/')) return true;
  return { reason: 'foreign-prefix', about: prefix };
}

function localAttribute(element: XmlElement, local: string) {
  return element.attributes.find(({ name }) => name.split(':').at(-1) === local);
}

function valueOf(
  { tree, model, variant }: ViewContext,
  written: string,
): { value: string; chain: ChainStep[] } | { value: null; reason: string; chain: ChainStep[] } {
  const name = /^@(?:\w[\w.]*:)?string\/([\w.]+)$/.exec(written)?.[1];
  if (name === undefined) return { value: written, chain: [] };
  const found = stringsOf(tree, model, variant).get(name);
  if (found) return { value: found.value, chain: [found.step] };
  return { value: null, reason: `no source set of this variant has a string ${name}`, chain: [] };
}
