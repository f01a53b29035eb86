import { mergeAttribution } from '../../formats/plist/attribution.js';
import { readPlist } from '../../formats/plist/read.js';
import { appendChild, escapeXml } from '../../formats/xml/edit.js';
import { profileFor } from '../../network/for-stack.js';
import { isEnrolled } from '../../roster/expected.js';
import { mergedIds } from '../../standards/skadnetwork.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../edits/model.js';
import { keyRules, keyStep, standingEdits, valueOf } from '../ios/wire-keys.js';
import { listRemovals } from '../ios/unwire-lists.js';
import { titleEditions } from '../joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';
import { listOf } from './plist-facts.js';
import type { MauiProject } from './project.js';

/** Keys and attribution IDs that networks need, in the property list. */
export function wireList(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const { title, survey } = context;
  const edition = titleEditions(context).find(({ platform }) => platform === 'ios');
  const path = listOf(project);
  const document = tree.text(path);
  const root = tree.read(path, readPlist)?.root;
  if (!edition || !document || root?.type !== 'dict') return { changes: [], byHand: [] };
  const { text, lineEnd } = document;
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const asking = context.profiles
    .filter(({ id }) => isEnrolled(title, id, 'ios'))
    .map((profile) => profileFor(profile, 'maui'));
  for (const profile of asking) {
    for (const key of profile.ios?.keys ?? []) {
      const held = survey.facts.filter(
        (fact) => fact.kind === 'plist-key' && fact.name === key.key && fact.module === edition.module,
      );
      const isThere = edition.variants.every(({ name }) =>
        held.some(
          (fact) => fact.variants.includes(name) && fact.standsIn === key.type && fact.value.trim() !== '',
        ),
      );
      if (isThere) continue;
      const value = valueOf(title, key);
      if (value === undefined) {
        byHand.push(keyStep(profile, key, path));
        continue;
      }
      const lines = [`<key>${escapeXml(key.key)}</key>`, ...value];
      const standing = standingEdits(document, root, key, title);
      changes.push({
        path,
        platform: 'ios',
        network: profile.id,
        topic: 'keys',
        rules: keyRules,
        // What stood there before, empty or wrong, is not the network's to take away.
        adds: standing ? [] : [`key ${key.key}`],
        kind: 'edit',
        edits: standing ?? appendChild(text, root.element, lines, lineEnd),
      });
    }
  }
  const listing = asking.filter(({ ios }) => ios?.attribution);
  const wanted = mergedIds(listing.map(({ ios }) => ios?.attribution?.ids ?? []));
  const edits = wanted.length > 0 ? mergeAttribution(text, root, wanted, lineEnd) : [];
  // One list serves all networks that ask: the same edits, said once for each.
  if (edits.length > 0)
    changes.push(
      ...listing.map(({ id }): Change => ({
        path,
        platform: 'ios',
        network: id,
        topic: 'attribution',
        rules: ['attribution/id-missing', 'attribution/id-twice'],
        kind: 'edit',
        edits,
      })),
    );
  return { changes, byHand };
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
