import { readStrings } from '../../formats/android-resources/read.js';
import { appendChild, escapeXml, removeElement, setAttribute } from '../../formats/xml/edit.js';
import { elements, prefixOf } from '../../formats/xml/query.js';
import { readXml, type XmlElement } from '../../formats/xml/read.js';
import type { Profile } from '../../network/model.js';
import { expectedIds, type ExpectedId } from '../../roster/expected.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { appIdRules, holeStep } from '../../wiring/steps.js';
import type { StackWiring } from '../stack.js';
import { metaDataOf, type FoundMetaData } from './manifest.js';
import { androidNamespace } from './namespaces.js';
import { manifestPath, resourceFolders, valueFiles } from './sources.js';
import { contextModule, type AndroidWireContext } from './wire-context.js';

const platform = 'android' as const;

/** A string resource that wiring wants: its name, and its value per stage. */
interface Wanted {
  network: string;
  name: string;
  ids: Map<string, string>;
}

/** App IDs: one meta-data element in the application element, referring to a string of each stage's source sets. */
export function wireAppIds(context: AndroidWireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const wanted: Wanted[] = [];
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
    const manifest = manifestChanges(context, profile, place.key, place.resource);
    byHand.push(...manifest.byHand);
    if (manifest.byHand.length > 0) continue;
    changes.push(...manifest.changes);
    wanted.push({
      network: profile.id,
      name: place.resource,
      ids: new Map(expected.map(({ stage, id }) => [stage, id ?? ''])),
    });
  }
  return { changes: [...changes, ...resourceChanges(context, wanted)], byHand };
}

/** Whether every variant already carries the expected ID, once and in its place, in whatever form. */
function agrees(context: AndroidWireContext, profile: Profile, expected: readonly ExpectedId[]): boolean {
  const facts = context.survey.facts.filter(
    (fact) => fact.kind === 'app-id' && fact.network === profile.id && fact.module === contextModule(context),
  );
  return context.edition.variants.every(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    return (
      mine.length === 1 &&
      mine[0]?.standsIn === 'application' &&
      mine[0].value === expected.find((item) => item.stage === stage)?.id
    );
  });
}

function manifestChanges(
  context: AndroidWireContext,
  profile: Profile,
  key: string,
  resource: string,
): StackWiring {
  const { tree, model } = context;
  const path = manifestPath(model, 'main');
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const bound = root?.attributes.some(({ value }) => value === androidNamespace);
  if (!document || !root || !application || !bound) {
    const what = `Give ${path} an application element${root && !bound ? ` and xmlns:android="${androidNamespace}"` : ''}.`;
    return {
      changes: [],
      byHand: [
        {
          platform,
          network: profile.id,
          rule: null,
          what,
          why: 'The app ID has nowhere to stand.',
          where: path,
        },
      ],
    };
  }
  const prefix = prefixOf(root, androidNamespace, 'android');
  const found = uniqueMetaData(context, key);
  const keep = found.find((item) => item.path === path && item.inApplication);
  const reference = `@string/${resource}`;
  const changes: Change[] = found
    .filter((item) => item !== keep)
    .map(({ path: where, element, inApplication }) => ({
      path: where,
      platform,
      network: profile.id,
      rules: inApplication ? ['app-id/duplicated', ...appIdRules] : ['app-id/nested-too-deep'],
      edits: [removeElement(tree.text(where)?.text ?? '', element)],
    }));
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
  if (edits.length > 0) changes.push({ path, platform, network: profile.id, rules: appIdRules, edits });
  return { changes, byHand: [] };
}

function valueEdits(element: XmlElement, prefix: string, reference: string) {
  const resource = element.attributes.find(({ name }) => name === `${prefix}:resource`);
  const edits = setAttribute(element, `${prefix}:value`, reference);
  return resource ? [...edits, { start: resource.start, end: resource.end, text: '' }] : edits;
}

function uniqueMetaData({ tree, model }: AndroidWireContext, key: string): FoundMetaData[] {
  const all = model.variants.flatMap((variant) => metaDataOf(tree, model, variant, key));
  return all.filter((item, index) => all.findIndex((other) => other.element === item.element) === index);
}

/** Brings the wanted strings into each stage's source sets: changed where they stand, else added to one file. */
function resourceChanges(context: AndroidWireContext, wanted: readonly Wanted[]): Change[] {
  const { tree, model, sets } = context;
  return sets.flatMap(({ stage, sourceSet }) => {
    const changes: Change[] = [];
    const missing: Wanted[] = [];
    for (const item of wanted) {
      const id = item.ids.get(stage) ?? '';
      const standing = valueFiles(tree, model, sourceSet).flatMap((path) =>
        (tree.read(path, readStrings)?.strings ?? [])
          .filter(({ name }) => name === item.name)
          .map((resource) => ({ path, resource })),
      )[0];
      if (!standing) missing.push(item);
      else if (standing.resource.value !== id || standing.resource.raw !== id) {
        const { element } = standing.resource;
        const inner = { start: element.openTag.end, end: element.closeTag?.start ?? element.openTag.end };
        changes.push({
          path: standing.path,
          platform,
          network: item.network,
          rules: appIdRules,
          edits: [{ ...inner, text: escapeXml(id) }],
        });
      }
    }
    return [...changes, ...addStrings(context, sourceSet, stage, missing)];
  });
}

/** Path of the resource file that wiring adds to a source set. */
function resourcePath({ model }: AndroidWireContext, sourceSet: string): string {
  return `${resourceFolders(model, sourceSet)[0] ?? ''}/values/syndexa.xml`;
}

function addStrings(
  context: AndroidWireContext,
  sourceSet: string,
  stage: string,
  missing: readonly Wanted[],
): Change[] {
  if (missing.length === 0) return [];
  const path = resourcePath(context, sourceSet);
  const line = ({ name, ids }: Wanted) =>
    `<string name="${name}" translatable="false">${escapeXml(ids.get(stage) ?? '')}</string>`;
  const root = context.tree.read(path, readXml)?.root;
  const document = context.tree.text(path);
  if (root && document) {
    return missing.map((item) => ({
      path,
      platform,
      network: item.network,
      rules: appIdRules,
      edits: [appendChild(document.text, root, [line(item)], document.lineEnd)],
    }));
  }
  const content = [
    '<?xml version="1.0" encoding="utf-8"?>',
    '<!-- App IDs, written by Syndexa from the roster. -->',
    '<resources>',
    ...missing.map((item) => `    ${line(item)}`),
    '</resources>',
    '',
  ].join('\n');
  return [
    {
      path,
      platform,
      network: missing.length === 1 ? (missing[0]?.network ?? null) : null,
      rules: appIdRules,
      content,
    },
  ];
}
