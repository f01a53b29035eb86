import type { ByHand, Change } from '../../../edits/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Effective } from '../../../facts/effective.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { appendChild, setAttribute } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import type { AndroidNeeds } from '../../../network/needs.js';
import { wantedMetaData } from '../../../network/wanted.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { Tree } from '../../../tree/tree.js';
import type { StackWiring } from '../../stack.js';
import { fillPlaceholders, removedFact } from './declared-facts.js';
import { toldAttributes, toolsEditsFor, toolsMarksFor } from './directive-wiring.js';
import { metaDataIn } from './found-meta-data.js';
import { mergedElements, removedElements } from './merge.js';
import { openedMarks } from './meta-data.js';
import type { ManifestBuild, ManifestWireContext } from './model.js';
import { androidNamespace } from './namespaces.js';
import { declares, lackingIn, removalSteps } from './removed.js';

type MetaData = AndroidNeeds['meta-data'][number];

const rules = ['manifest/meta-data-missing', 'manifest/meta-data-differs'];

/** Says that wiring put a meta-data element in. */
export const metaDataMark = (key: string): string => `meta-data ${key}`;

/** The meta-data elements that profiles require beside the app ID, and the directives that remove them. */
export function metaDataFacts(tree: Tree, build: ManifestBuild, { profiles }: SurveyContext): Fact[] {
  const { files, module, variant } = build;
  const wanted = new Set(
    profiles.flatMap(({ android }) => (android?.['meta-data'] ?? []).map(({ key }) => key)),
  );
  if (wanted.size === 0) return [];
  const base = { platform: 'android' as const, module, variants: [variant], network: null };
  const facts: Fact[] = [];
  for (const { key, sources, attributes } of mergedElements(files, 'meta-data')) {
    const [source] = sources;
    const given = attributes.get('value') ?? attributes.get('resource');
    if (!source || !wanted.has(key)) continue;
    const { path } = (given ?? source).file;
    const place = placeAt(path, tree.text(path), given?.attribute.valueSpan ?? source.element);
    const chain: ChainStep[] = [{ what: 'manifest', value: given?.value ?? null, place }];
    const filled = given ? fillPlaceholders(given.value, build, chain).value : '';
    const reference = /^@string\/([\w.]+)$/.exec(filled ?? '')?.[1];
    const text = reference === undefined ? undefined : build.string(reference);
    if (text) chain.push(text.step);
    const value = text?.value ?? filled ?? given?.value ?? '';
    const as = attributes.has('value') || !given ? ('value' as const) : ('resource' as const);
    const effective: Effective = true;
    facts.push({ ...base, kind: 'meta-data', name: key, value, as, effective, place, chain });
  }
  for (const key of wanted) {
    for (const { element, path, inApplication } of metaDataIn(files, key)) {
      if (inApplication) continue;
      const place = placeAt(path, tree.text(path), element);
      const effective: Effective = { reason: 'nested', about: element.parent?.name ?? 'another element' };
      const chain: ChainStep[] = [{ what: 'manifest', value: null, place }];
      facts.push({ ...base, kind: 'meta-data', name: key, value: '', as: 'value', effective, place, chain });
    }
  }
  for (const removed of removedElements(files, 'meta-data'))
    if (wanted.has(removed.key)) {
      const fact = removedFact(tree, build, removed);
      facts.push({ ...fact, kind: 'meta-data', network: null, name: removed.key, as: 'value' });
    }
  return facts;
}

/** The meta-data elements that enrolled networks require, with their values, in the main manifest. */
export function wireMetaData(context: ManifestWireContext): StackWiring {
  const { title, profiles, survey, edition } = context;
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const done = new Set<string>();
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'android'))) {
    for (const needed of profile.android?.['meta-data'] ?? []) {
      const held = survey.facts.filter(
        (fact) => fact.kind === 'meta-data' && fact.name === needed.key && fact.module === edition.module,
      );
      const { removals } = lackingIn(edition.variants, held);
      byHand.push(...removalSteps(profile, 'manifest/meta-data-missing', removals));
      const asWanted = held.filter((fact) => fact.effective !== true || isMet(fact, needed));
      const { isLacking } = lackingIn(edition.variants, asWanted);
      if (!isLacking || done.has(needed.key)) continue;
      done.add(needed.key);
      const wanted = wantedMetaData(needed);
      if (!wanted)
        byHand.push({
          platform: 'android',
          network: profile.id,
          rule: 'manifest/meta-data-missing',
          what: `Add a meta-data element ${needed.key} to the application element, with the right value for this app.`,
          why: `${profile.name}: ${needed.why}`,
          where: context.manifest,
        });
      else changes.push(...written(context, profile, needed.key, wanted));
    }
  }
  return { changes, byHand };
}

/** Whether a fact shows an element as a network wants it. */
function isMet(fact: Fact, needed: MetaData): boolean {
  const wanted = wantedMetaData(needed);
  return fact.kind === 'meta-data' && (!wanted || (fact.value === wanted.text && fact.as === wanted.as));
}

function written(
  context: ManifestWireContext,
  profile: Profile,
  key: string,
  { as: name, text }: NonNullable<ReturnType<typeof wantedMetaData>>,
): Change[] {
  const { tree, manifest: path } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  if (!document || !application) return [];
  const prefix = prefixOf(root, androidNamespace, 'android');
  const base = {
    path,
    platform: 'android' as const,
    network: profile.id,
    topic: 'meta-data' as const,
    rules,
  };
  const about = { element: 'meta-data' as const, name: key };
  if (declares(root, application, 'meta-data', key)) {
    const element = elements(application, 'meta-data').find(
      (one) => attribute(one, `${prefix}:name`)?.value.trim() === key,
    );
    const other = element && attribute(element, `${prefix}:${name === 'value' ? 'resource' : 'value'}`);
    if (!element) return [];
    // An element has one or the other: the whole attribute is replaced, its name included.
    const edits = other
      ? [{ start: other.start, end: other.end, text: `${prefix}:${name}="${escapeXml(text)}"` }]
      : setAttribute(element, `${prefix}:${name}`, text, document.text);
    return edits.length === 0 ? [] : [{ ...base, kind: 'edit', edits }];
  }
  const told = toldAttributes(profile, about, root).map((one) => `  ${one}`);
  const lines = [
    '<meta-data',
    `  ${prefix}:name="${escapeXml(key)}"`,
    ...told,
    `  ${prefix}:${name}="${escapeXml(text)}" />`,
  ];
  return [
    {
      ...base,
      adds: [
        metaDataMark(key),
        ...openedMarks(document.text, application),
        ...toolsMarksFor(profile, about, root),
      ],
      kind: 'edit',
      edits: [
        ...toolsEditsFor(profile, about, root, document.text),
        ...appendChild(document.text, application, lines, document.lineEnd),
      ],
    },
  ];
}
