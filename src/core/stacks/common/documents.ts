import type { Platform, Stage } from '../../words/words.js';
import { platformNames } from '../../words/names.js';
import type { Fact, SurveyEdition, Unresolved } from '../../facts/model.js';
import { placeAt } from '../../facts/place.js';
import { maxIdLength } from '../../network/recognise.js';
import { expectedIds } from '../../roster/expected.js';
import { withPlacements } from '../../roster/variant-stages.js';
import type { SurveyContext } from '../../roster/survey-context.js';
import type { Span } from '../../text/problem.js';
import { baseOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { CollectRule } from '../stack.js';

/** Ends of the names of documents that builds pack as they are, and code reads. */
const ends = ['.json', '.strings', '.xcstrings', '.properties', '.yaml', '.yml', '.txt', '.csv'];

/** The documents that may hold IDs, where any stack packs them. */
export const documentFiles: readonly CollectRule[] = [
  ...ends.map((suffix) => ({ suffix, needle: true })),
  { name: '.env', needle: true },
];

/** Whether a file is a document to search for IDs. Files of package managers and tools are not. */
export function isDocument(path: string): boolean {
  const name = baseOf(path);
  if (/^(package|app|eas|tsconfig|jsconfig|composer)(\.[\w-]+)?\.json$|\block\b|-lock\.|^pubspec/.test(name))
    return false;
  return [...ends, '.plist', '.xml', '.env'].some((end) => name.endsWith(end));
}

/** Documents that variants of an edition carry. */
export interface PackedDocuments {
  platform: Platform;
  module: string;
  variants: readonly string[];
  paths: readonly string[];
  /** Why it is not known whether the build packs them; left out where it does. */
  open?: string;
}

/** An ID in a document. */
interface Hit extends Span {
  value: string;
  network: string;
  /** The name before it on its line, most often its key. */
  name: string | undefined;
}

/** A unit ID in something that code reads, with its place. */
export type PlacedUnit = Pick<Fact, 'value' | 'place' | 'chain'> & { network: string; name: string };

/** The unit IDs in documents that a build carries. */
export function documentFacts(
  tree: Tree,
  { paths, open, ...edition }: PackedDocuments,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const found = paths.map((path) => {
    const document = tree.text(path);
    const units = idsIn(document?.text ?? '', path, context).map(({ value, network, name, start, end }) => {
      const place = placeAt(path, document, { start, end });
      return {
        value,
        network,
        name: name ?? baseOf(path),
        place,
        chain: [{ what: baseOf(path), value, place }],
      };
    });
    return unitFacts(units, edition, context, open);
  });
  return {
    facts: found.flatMap(({ facts }) => facts),
    unresolved: found.flatMap(({ unresolved }) => unresolved),
  };
}

/**
 * Facts for the unit IDs of one document. What is written for the other platform is left out, because code chooses
 * between the two. Where a document holds IDs of both stages, code chooses between those too, which reading cannot
 * follow.
 * @param open why it is not known whether the build carries the document
 */
export function unitFacts(
  units: readonly PlacedUnit[],
  { platform, module, variants }: Pick<PackedDocuments, 'platform' | 'module' | 'variants'>,
  context: SurveyContext,
  open?: string,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const ownersFor = ownersOf(context);
  const mine = units.flatMap((unit) => {
    const owners = ownersFor(unit.value, unit.network);
    const isOther = owners.length > 0 && !owners.some((owner) => owner.platform === platform);
    return isOther ? [] : [{ unit, owners }];
  });
  const stages = new Set(mine.flatMap(({ owners }) => owners.map(({ stage }) => stage)));
  const reason = stages.size > 1 ? 'the document holds IDs of both stages' : open;
  const base = { kind: 'unit-id' as const, platform, module, variants: [...variants] };
  const facts = mine.map(({ unit }): Fact => ({
    ...base,
    ...unit,
    variants: [...variants],
    carrier: 'document',
    effective: true,
  }));
  if (reason === undefined) return { facts, unresolved: [] };
  const unresolved = mine.map(({ unit: { name: _, ...unit } }) => ({
    ...base,
    ...unit,
    what: `whether ${unit.value} is used`,
    reason,
  }));
  return { facts: [], unresolved };
}

/** A document that code of both platforms may read. */
export interface SharedDocument {
  path: string;
  /** The flavours that carry it; left out for all. */
  flavours?: readonly string[];
  open?: string;
}

/** The unit IDs in documents that every edition of a project carries. */
export function sharedDocumentFacts(
  tree: Tree,
  documents: readonly SharedDocument[],
  editions: readonly SurveyEdition[],
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const found = editions.flatMap(({ platform, module, variants }) =>
    documents.map(({ path, flavours, open }) => {
      const carrying = variants.filter(
        (variant) => !flavours || variant.flavours.some((one) => flavours.includes(one)),
      );
      const names = carrying.map(({ name }) => name);
      const packed = { platform, module, variants: names, paths: names.length > 0 ? [path] : [] };
      return documentFacts(tree, { ...packed, ...(open === undefined ? {} : { open }) }, context);
    }),
  );
  return {
    facts: withPlacements(
      found.flatMap(({ facts }) => facts),
      context.title,
    ),
    unresolved: found.flatMap(({ unresolved }) => unresolved),
  };
}

/** To which platforms and stages of the title an ID belongs; a sample belongs to the tests of its platforms. */
function ownersOf({ title, profiles, recogniser }: SurveyContext) {
  const held = title ? platformNames.flatMap((platform) => expectedIds(title, profiles, platform)) : [];
  return (value: string, network: string): { platform: Platform; stage: Stage }[] => [
    ...held.filter((one) => one.id === value && one.network === network),
    ...recogniser
      .recognise(value)
      .filter((one) => one.network === network)
      .flatMap(({ sample }) => sample ?? [])
      .map(({ platform }) => ({ platform, stage: 'test' as const })),
  ];
}

const idCharacter = /[\w.:/~@+-]/;
const maxHits = 500;

/** The unit IDs of a document, comments left out. */
function idsIn(text: string, path: string, { recogniser }: SurveyContext): Hit[] {
  const hits = new Map<number, Hit>();
  const plain = withoutComments(text, path);
  for (const needle of recogniser.needles) {
    for (
      let at = plain.indexOf(needle);
      at >= 0 && hits.size < maxHits;
      at = plain.indexOf(needle, at + needle.length)
    ) {
      const span = around(plain, at, at + needle.length);
      if (!span || hits.has(span.start)) continue;
      const value = plain.slice(span.start, span.end);
      for (const { kind, network } of recogniser.recognise(value))
        if (kind === 'unit')
          hits.set(span.start, { ...span, value, network, name: nameBefore(plain, span.start) });
    }
  }
  return [...hits.values()].sort((a, b) => a.start - b.start);
}

/** The word that a needle is part of; undefined when it is too long for an ID. */
function around(text: string, from: number, to: number): Span | undefined {
  let [start, end] = [from, to];
  while (start > 0 && from - start <= maxIdLength && idCharacter.test(text[start - 1] ?? '')) start--;
  while (end < text.length && end - to <= maxIdLength && idCharacter.test(text[end] ?? '')) end++;
  // A colon or an equals sign before it belongs to the key.
  const head = /^[\w.-]*[:=]/.exec(text.slice(start, from))?.[0].length ?? 0;
  start += head;
  while (end > to && /[.:/]/.test(text[end - 1] ?? '')) end--;
  return end - start > maxIdLength ? undefined : { start, end };
}

function nameBefore(text: string, at: number): string | undefined {
  const line = text.slice(Math.max(0, at - 200), at).split('\n');
  const words = `${line.at(-2) ?? ''} ${line.at(-1) ?? ''}`.match(/[A-Za-z][\w.-]*/g) ?? [];
  return words.filter((word) => !/^(string|key|value|name)$/i.test(word)).at(-1);
}

/** A text of the same length with its comments blanked out. */
function withoutComments(text: string, path: string): string {
  const pattern = /\.(plist|xml)$/.test(path)
    ? /<!--[^]*?(?:-->|$)/g
    : /\.strings$/.test(path)
      ? /\/\*[^]*?(?:\*\/|(?![^]))|^[ \t]*\/\/.*$/gm
      : /\.(ya?ml|properties|env)$/.test(path)
        ? /(?:^|[ \t])[#!].*$/gm
        : undefined;
  return pattern ? text.replace(pattern, (comment) => comment.replace(/[^\n]/g, ' ')) : text;
}
