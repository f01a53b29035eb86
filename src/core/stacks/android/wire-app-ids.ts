import { appendChild, escapeXml, removeElement, setAttribute } from '../../formats/xml/edit.js';
import { elements, prefixOf } from '../../formats/xml/query.js';
import { readXml, type XmlElement } from '../../formats/xml/read.js';
import type { Profile } from '../../network/model.js';
import { expectedIds, type ExpectedId } from '../../roster/expected.js';
import type { Fact } from '../../survey/model.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { appIdRules, holeStep } from '../../wiring/steps.js';
import { literalFixes } from '../literal-fix.js';
import type { StackWiring } from '../stack.js';
import { metaDataOf, type FoundMetaData } from './manifest.js';
import { androidNamespace } from './namespaces.js';
import { manifestPath } from './sources.js';
import { adoptedForm } from './wire-adopted.js';
import { contextModule, type AndroidWireContext } from './wire-context.js';
import { stringChanges, type WantedString } from './wire-strings.js';

const platform = 'android' as const;
const topic = 'app-id' as const;

/**
 * App IDs: one meta-data element in the application element. Where the tree has a form of its own to give each
 * variant its ID (literals, placeholders, resources under another name), that is kept; else the element refers
 * to a string of each stage's source sets.
 */
export function wireAppIds(context: AndroidWireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const wanted: WantedString[] = [];
  for (const profile of context.profiles) {
    const place = profile.android?.['app-id'];
    if (place?.place !== 'manifest') continue;
    const expected = expectedIds(context.title, [profile], platform).filter(({ kind }) => kind === 'app');
    if (expected.length === 0 || agrees(context, profile, expected)) continue;
    const holes = expected.filter(({ id }) => id === undefined);
    if (holes.length > 0) {
      byHand.push(...holes.map(({ stage }) => holeStep(platform, profile, stage)));
      continue;
    }
    const ids = new Map(expected.map(({ stage, id }) => [stage, id ?? '']));
    const inPlace = writtenInPlace(context, profile, place.key, ids);
    if (inPlace) {
      changes.push(...inPlace);
      continue;
    }
    const adopted = adoptedForm(context, profile, place.key, ids);
    const name = adopted?.resource ?? place.resource;
    const reference = adopted?.reference ?? `@string/${name}`;
    const manifest = manifestChanges(context, profile, place.key, reference);
    byHand.push(...manifest.byHand);
    if (manifest.byHand.length > 0) continue;
    changes.push(...manifest.changes, ...(adopted?.changes ?? []));
    if (!adopted || adopted.resource !== undefined)
      wanted.push({ network: profile.id, topic, rules: appIdRules, name, ids });
  }
  return { changes: [...changes, ...stringChanges(context, wanted)], byHand };
}

function factsOf(context: AndroidWireContext, profile: Profile): Fact[] {
  return context.survey.facts.filter(
    (fact) => fact.kind === 'app-id' && fact.network === profile.id && fact.module === contextModule(context),
  );
}

/** Whether every variant already carries the expected ID, once and in its place, in whatever form. */
function agrees(context: AndroidWireContext, profile: Profile, expected: readonly ExpectedId[]): boolean {
  const facts = factsOf(context, profile);
  return context.edition.variants.every(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    return (
      mine.length === 1 &&
      mine[0]?.standsIn === 'application' &&
      mine[0].value === expected.find((item) => item.stage === stage)?.id
    );
  });
}

/** Right IDs written over the wrong ones, when every variant has one of its own; astray elements are taken out. */
function writtenInPlace(
  context: AndroidWireContext,
  profile: Profile,
  key: string,
  ids: ReadonlyMap<string, string>,
): Change[] | undefined {
  const { tree, edition } = context;
  const facts = factsOf(context, profile).filter(({ standsIn }) => standsIn === 'application');
  const values = edition.variants.map(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    const [fact] = mine;
    return mine.length === 1 && fact
      ? { variant: name, chain: fact.chain, value: fact.value, wanted: ids.get(stage ?? '') ?? '' }
      : undefined;
  });
  if (values.some((value) => value === undefined)) return undefined;
  const fixes = literalFixes(
    tree,
    values.flatMap((value) => value ?? []),
  );
  if (!fixes) return undefined;
  const astray = uniqueMetaData(context, key).filter(({ inApplication }) => !inApplication);
  return [
    ...fixes.map(({ path, variants, ...edit }): Change => ({
      path,
      platform,
      network: profile.id,
      topic,
      rules: appIdRules,
      variants,
      edits: [edit],
    })),
    ...astray.map((item) => removal(context, profile, item)),
  ];
}

function removal({ tree }: AndroidWireContext, profile: Profile, item: FoundMetaData): Change {
  return {
    path: item.path,
    platform,
    network: profile.id,
    topic,
    rules: item.inApplication ? ['app-id/duplicated', ...appIdRules] : ['app-id/nested-too-deep'],
    edits: [removeElement(tree.text(item.path)?.text ?? '', item.element)],
  };
}

function manifestChanges(
  context: AndroidWireContext,
  profile: Profile,
  key: string,
  reference: string,
): StackWiring {
  const { tree, model } = context;
  const path = manifestPath(model, 'main');
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const bound = root?.attributes.some(({ value }) => value === androidNamespace);
  if (!document || !root || !application || !bound) {
    const what = `Give ${path} an application element${root && !bound ? ` and xmlns:android="${androidNamespace}"` : ''}.`;
    const why = 'The app ID has nowhere to stand.';
    return {
      changes: [],
      byHand: [{ platform, network: profile.id, rule: null, what, why, where: path }],
    };
  }
  const prefix = prefixOf(root, androidNamespace, 'android');
  const found = uniqueMetaData(context, key);
  const keep = found.find((item) => item.path === path && item.inApplication);
  const changes: Change[] = found
    .filter((item) => item !== keep)
    .map((item) => removal(context, profile, item));
  const edits = keep
    ? valueEdits(keep.element, prefix, reference)
    : [
        appendChild(
          document.text,
          application,
          [`<meta-data`, `  ${prefix}:name="${escapeXml(key)}"`, `  ${prefix}:value="${reference}" />`],
          document.lineEnd,
        ),
      ];
  // Moving one out of a component is what mends the one that was too deep.
  const nested = found.some(({ inApplication }) => !inApplication) ? ['app-id/nested-too-deep'] : [];
  if (edits.length > 0)
    changes.push({ path, platform, network: profile.id, topic, rules: [...nested, ...appIdRules], edits });
  return { changes, byHand: [] };
}

function valueEdits(element: XmlElement, prefix: string, reference: string) {
  const resource = element.attributes.find(({ name }) => name === `${prefix}:resource`);
  const edits = setAttribute(element, `${prefix}:value`, reference);
  return resource ? [...edits, { start: resource.start, end: resource.end, text: '' }] : edits;
}

/** The meta-data elements of a key in the module's own manifests, each once. */
export function uniqueMetaData({ tree, model }: AndroidWireContext, key: string): FoundMetaData[] {
  const all = model.variants.flatMap((variant) => metaDataOf(tree, model, variant, key));
  return all.filter((item, index) => all.findIndex((other) => other.element === item.element) === index);
}
