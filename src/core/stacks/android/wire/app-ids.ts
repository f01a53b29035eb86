import type { Profile } from '../../../network/model.js';
import { expectedIds, type ExpectedId } from '../../../roster/expected.js';
import { isWhereBuildLooks } from '../../../facts/effective.js';
import type { Fact } from '../../../facts/model.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { appIdRules, holeStep } from '../../common/by-hand-steps.js';
import { appIdFixes } from '../../common/literal-fix.js';
import type { StackWiring } from '../../stack.js';
import type { FoundMetaData } from '../../common/manifest/found-meta-data.js';
import { metaDataChanges, metaDataRemoval } from '../../common/manifest/meta-data.js';
import { metaDataOf } from '../survey/module-manifests.js';
import { adoptedForm } from './adopted.js';
import type { AndroidWireContext } from './context.js';
import { stringChanges, type WantedString } from './strings.js';

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
    const manifest = metaDataChanges(context, profile, {
      key: place.key,
      reference,
      found: uniqueMetaData(context, place.key),
    });
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
    (fact) => fact.kind === 'app-id' && fact.network === profile.id && fact.module === context.edition.module,
  );
}

/** Whether every variant already carries the expected ID, once and in its place, in whatever form. */
function agrees(context: AndroidWireContext, profile: Profile, expected: readonly ExpectedId[]): boolean {
  const facts = factsOf(context, profile);
  return context.edition.variants.every(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    return (
      mine.length === 1 &&
      mine[0] !== undefined &&
      isWhereBuildLooks(mine[0]) &&
      mine[0].value === expected.find((item) => item.stage === stage)?.id
    );
  });
}

/** Replaces wrong IDs by the right ones, if every variant has its own; misplaced elements are removed. */
function writtenInPlace(
  context: AndroidWireContext,
  profile: Profile,
  key: string,
  ids: ReadonlyMap<string, string>,
): Change[] | undefined {
  const { tree, edition } = context;
  const facts = factsOf(context, profile).filter(isWhereBuildLooks);
  const values = edition.variants.map(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    const [fact] = mine;
    return mine.length === 1 && fact
      ? { variant: name, chain: fact.chain, value: fact.value, wanted: ids.get(stage ?? '') ?? '' }
      : undefined;
  });
  const fixes = appIdFixes(tree, values, { platform, network: profile.id });
  if (!fixes) return undefined;
  const astray = uniqueMetaData(context, key).filter(({ inApplication }) => !inApplication);
  return [...fixes, ...astray.map((item) => metaDataRemoval(context, profile, item))];
}

/** The meta-data elements of a key in the module's own manifests, each once. */
export function uniqueMetaData({ tree, model }: AndroidWireContext, key: string): FoundMetaData[] {
  const all = model.variants.flatMap((variant) => metaDataOf(tree, model, variant, key));
  return all.filter((item, index) => all.findIndex((other) => other.element === item.element) === index);
}
