import { mergeAttribution } from '../../../formats/plist/attribution.js';
import type { FactOf, SurveyEdition } from '../../../facts/model.js';
import { readPlist, type PlistValue } from '../../../formats/plist/read.js';
import { appendChild } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { profileFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import type { TextDocument } from '../../../text/document.js';
import { isEnrolled } from '../../../roster/expected.js';
import { mergedIds } from '../../../standards/skadnetwork.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { plainLines } from '../../../formats/plist/plain.js';
import { existingKeyEdits, isKeyMet, joinedValue, keyRules, keyStep } from '../../common/plist/keys.js';
import { keyMark } from '../../common/plist/marks.js';
import { listRemovals } from '../../common/plist/removals.js';
import { titleEditions } from '../../common/joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { listOf } from '../survey/plist-facts.js';
import type { MauiProject } from '../survey/project.js';

/** Keys and attribution IDs that networks need, in the property list. */
export function wireList(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const edition = titleEditions(context).find(({ platform }) => platform === 'ios');
  const path = listOf(project);
  const document = tree.text(path);
  const root = tree.read(path, readPlist)?.root;
  if (!edition || !document || root?.type !== 'dict') return { changes: [], byHand: [] };
  const asking = context.profiles
    .filter(({ id }) => isEnrolled(context.title, id, 'ios'))
    .map((profile) => profileFor(profile, 'maui'));
  const list = { path, document, root };
  const keys = asking.map((profile) => wireKeys(context, edition, list, { profile, asking }));
  return {
    changes: [...keys.flatMap(({ changes }) => changes), ...attributionChanges(list, asking)],
    byHand: keys.flatMap(({ byHand }) => byHand),
  };
}

interface PropertyList {
  path: string;
  document: TextDocument;
  root: PlistValue & { type: 'dict' };
}

/** The keys that one network requires, and that not every build has. */
function wireKeys(
  { title, survey }: WireContext,
  edition: SurveyEdition,
  { path, document, root }: PropertyList,
  { profile, asking }: { profile: Profile; asking: readonly Profile[] },
): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const key of profile.ios?.keys ?? []) {
    const held = survey.facts.filter(
      (fact): fact is FactOf<'plist-key'> =>
        fact.kind === 'plist-key' && fact.name === key.key && fact.module === edition.module,
    );
    const value = joinedValue(title, asking, key.key);
    const isThere = edition.variants.every(({ name }) =>
      held.some((fact) => fact.variants.includes(name) && isKeyMet(fact, key, value)),
    );
    if (isThere) continue;
    if (value === undefined) {
      byHand.push(keyStep(profile, key, path));
      continue;
    }
    const lines = [`<key>${escapeXml(key.key)}</key>`, ...plainLines(value, key.type)];
    const existing = existingKeyEdits(document, root, key, value);
    changes.push({
      path,
      platform: 'ios',
      network: profile.id,
      topic: 'keys',
      rules: keyRules,
      // What stood there before, empty or wrong, is not the network's to take away.
      adds: existing?.adds ?? [keyMark(key.key)],
      kind: 'edit',
      edits: existing?.edits ?? appendChild(document.text, root.element, lines, document.lineEnd),
    });
  }
  return { changes, byHand };
}

/** One attribution list serves all networks that ask: the same edits, said once for each. */
function attributionChanges({ path, document, root }: PropertyList, asking: readonly Profile[]): Change[] {
  const listing = asking.filter(({ ios }) => ios?.attribution);
  const wanted = mergedIds(listing.map(({ ios }) => ios?.attribution?.ids ?? []));
  const edits = wanted.length > 0 ? mergeAttribution(document.text, root, wanted, document.lineEnd) : [];
  if (edits.length === 0) return [];
  const rules = ['attribution/id-missing', 'attribution/id-twice'];
  return listing.map(({ id }): Change => ({
    path,
    platform: 'ios',
    network: id,
    topic: 'attribution',
    rules,
    kind: 'edit',
    edits,
  }));
}

/** What a network alone has in the property list. */
export function unwireList(tree: Tree, project: MauiProject, context: UnwireContext): Change[] {
  const path = listOf(project);
  const text = tree.text(path)?.text;
  const root = tree.read(path, readPlist)?.root;
  if (text === undefined || root?.type !== 'dict') return [];
  const { removals } = listRemovals(context, text, root);
  const base = { path, platform: 'ios' as const, network: context.network.id, rules: [] };
  return removals.map((removal) => ({ ...base, kind: 'edit', ...removal }));
}
