import { rules } from '../checks/rules/index.js';
import type { Profile } from '../network/model.js';
import type { Recognised } from '../network/recognise.js';
import { platformLabels } from '../words/platform-labels.js';
import type { Title } from '../roster/model.js';
import { heldIds } from '../roster/validate.js';
import { compareText } from '../text/compare.js';
import { valueAt } from '../text/own-values.js';
import { hitKinds, type SearchHit } from './model.js';

const nothing = { title: null, placement: null, network: null, platform: null, stage: null };

/** What is searched besides the record. */
export interface SearchSources {
  /** All titles, with those placements whose names or IDs may have the text. */
  titles: readonly ({ id: string } & Pick<Title, 'name' | 'networks' | 'placements'>)[];
  profiles: readonly Profile[];
  /** What the text is to the networks, if it is a whole ID. */
  recognised: readonly Recognised[];
}

/**
 * Finds a text in names and IDs, ignoring case. Exact matches come first, then matches at the start, then at the start
 * of a word, then the rest.
 * @param most the maximum number of hits of each kind
 */
export function searchHits(text: string, sources: SearchSources, most: number): SearchHit[] {
  const wanted = folded(text);
  if (wanted === '') return [];
  const found = [...recordHits(sources), ...networkHits(sources), ...ruleHits()].flatMap((hit) => {
    const rank = Math.min(...textsOf(hit).map((one) => rankOf(one, wanted)));
    return rank === Infinity ? [] : [{ hit, rank }];
  });
  found.push(...unknownId(text.trim(), sources, found));
  found.sort((one, other) => one.rank - other.rank || compareText(one.hit.name, other.hit.name));
  return hitKinds
    .map((kind) => found.filter(({ hit }) => hit.kind === kind).slice(0, most))
    .sort((one, other) => (one[0]?.rank ?? Infinity) - (other[0]?.rank ?? Infinity))
    .flatMap((ofKind) => ofKind.map(({ hit }) => hit));
}

function* recordHits({ titles, profiles }: SearchSources): Generator<SearchHit> {
  for (const { id, ...title } of titles) {
    yield { ...nothing, kind: 'title', name: title.name, where: id, title: id };
    for (const [placement, { format }] of Object.entries(title.placements))
      yield {
        ...nothing,
        kind: 'placement',
        name: placement,
        where: `${format} of ${title.name}`,
        title: id,
        placement,
      };
    for (const { id: name, network, platform, stage, placement = null } of heldIds(title)) {
      const of = profiles.find((profile) => profile.id === network)?.name ?? network;
      const where = `${of}, ${title.name}, ${placement ?? 'app ID'}, ${platformLabels[platform]} ${stage}`;
      yield { kind: 'id', name, where, title: id, placement, network, platform, stage };
    }
  }
}

function* networkHits({ profiles }: SearchSources): Generator<SearchHit> {
  for (const { id, name } of profiles) yield { ...nothing, kind: 'network', name, where: id, network: id };
}

function* ruleHits(): Generator<SearchHit> {
  for (const { meta } of rules) yield { ...nothing, kind: 'rule', name: meta.id, where: meta.severity };
}

/** An ID that a network could have given out, and that is in no record. */
function unknownId(
  id: string,
  { recognised, profiles }: SearchSources,
  found: readonly { hit: SearchHit }[],
): { hit: SearchHit; rank: number }[] {
  const [first] = recognised;
  if (!first || found.some(({ hit }) => hit.kind === 'id' && hit.name === id)) return [];
  const profile = profiles.find((one) => one.id === first.network);
  const label = profile && valueAt(profile.ids, first.kind)?.label;
  const what = `${first.sample ? 'sample ' : ''}${label ?? first.kind} of ${profile?.name ?? first.network}`;
  const where = first.sample ? what : `${what}, in no record`;
  return [{ hit: { ...nothing, kind: 'id', name: id, where, network: first.network }, rank: 0 }];
}

/** The texts by which something is found. */
function textsOf({ kind, name, where }: SearchHit): string[] {
  return kind === 'title' || kind === 'network' ? [folded(name), where] : [folded(name)];
}

function rankOf(text: string, wanted: string): number {
  if (text === wanted) return 0;
  if (text.startsWith(wanted)) return 1;
  const at = text.indexOf(wanted);
  if (at < 0) return Infinity;
  return /[\s/_.-]/.test(text[at - 1] ?? '') ? 2 : 3;
}

/** Names are found in small or capital letters, with and without accents. */
function folded(text: string): string {
  return text.trim().normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase();
}
