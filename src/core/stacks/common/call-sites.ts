import { valueAt } from '../../text/own-values.js';
import { readingOf } from '../../code/source-files.js';
import { languageOf, type Language, type LanguageName } from '../../languages/index.js';
import type { Profile } from '../../network/model.js';
import { platforms, type Platform } from '../../words/words.js';
import { misplacedUnits } from '../../roster/misplaced-units.js';
import { expectedIds } from '../../roster/expected.js';
import type { Title } from '../../roster/model.js';
import { isIdFact, type Fact } from '../../facts/model.js';
import type { TextDocument } from '../../text/document.js';
import type { Edit } from '../../text/edit.js';
import type { Tree } from '../../tree/tree.js';
import type { Change } from '../../edits/model.js';

/** What replacing IDs in code needs to know. */
export interface CallSiteContext {
  tree: Tree;
  platform: Platform;
  module: string;
  facts: readonly Fact[];
  title: Title;
  profiles: readonly Profile[];
  /** The languages that have a placebook in this edition. */
  languages: readonly LanguageName[];
  /** The package that the placebook is in, for languages that import it. */
  packageName?: string | undefined;
  /** The path of the placebook, for languages that import by path. */
  bookPath?: string;
  /** The name by which a file imports a placebook that is in another package. */
  moduleFor?: (path: string) => string | undefined;
  /** Whether the code of a file can refer to the placebook; all can where this is left out. */
  canRefer?: (path: string) => boolean;
}

const rules = ['code/hard-coded-id', 'stage/test-id-in-production', 'stage/production-id-in-test'];

/** Whether a fact is an ID that code names as a literal. */
function isInCode(fact: Fact): boolean {
  return isIdFact(fact) && fact.carrier === 'code';
}

/** IDs in code that the roster knows, replaced by references to the placebook, with the import that these need. */
export function callSiteChanges(context: CallSiteContext): Change[] {
  const { tree, platform, module, facts, profiles } = context;
  const seen = new Set<string>();
  const isMisplaced = misplacedUnits(facts, context.title, platform);
  return facts.flatMap((fact): Change[] => {
    const { network, place } = fact;
    const profile = profiles.find(({ id }) => id === network);
    const language = languageOf(place.path);
    const document = tree.text(place.path);
    const key = `${place.path} ${place.line} ${place.column}`;
    if (!profile || !isInCode(fact) || fact.module !== module || fact.platform !== platform) return [];
    if (!language || !context.languages.includes(language.id) || !document || seen.has(key)) return [];
    if (context.canRefer?.(place.path) === false) return [];
    const reference = referenceFor(context, fact, language);
    if (reference === undefined) return [];
    const choice = choiceEdits(context, document, fact, language, reference);
    if (isMisplaced(fact, profile) || (!choice && isOfOtherPlatform(context, fact, profile))) return [];
    seen.add(key);
    const replaced = choice ?? literalEdits(document, fact, { reference, language });
    if (replaced.length === 0) return [];
    const imports = language.importPlacebook(document, {
      packageName: context.packageName ?? context.moduleFor?.(place.path),
      bookPath: context.bookPath,
      path: place.path,
      names: () => namesIn(context, place.path, language),
    });
    const edits = [...replaced, ...imports];
    return [{ path: place.path, platform, network, topic: 'call-sites', rules, kind: 'edit', edits }];
  });
}

/**
 * Whether a unit ID belongs to the other platform, and no code of that platform has it at this place. In a choice by
 * platform, and in code for both, the placement is clear, and the placebook has its right ID.
 */
function isOfOtherPlatform(
  { facts, title, platform }: CallSiteContext,
  fact: Fact,
  profile: Profile,
): boolean {
  const placement = valueAt(title.placements, fact.placement ?? '');
  const units = valueAt(placement?.units ?? {}, profile.id) ?? {};
  const isOf = (one: Platform) => Object.values(units[one] ?? {}).includes(fact.value);
  const { path, line, column } = fact.place;
  const isShared = facts.some(
    ({ platform: other, place }) =>
      other !== platform &&
      isOf(other) &&
      place.path === path &&
      place.line === line &&
      place.column === column,
  );
  return platforms.some(isOf) && !isOf(platform) && !isShared;
}

/** The reference for an ID; undefined when the roster gives it to none, or to several. */
function referenceFor(
  { title, profiles, platform }: CallSiteContext,
  { kind, network, value }: Fact,
  language: Language,
): string | undefined {
  if (network === null) return undefined;
  if (kind === 'app-id') {
    const held = Object.values(valueAt(title.networks, network) ?? {}).some((stages) =>
      Object.values(stages).some(({ app }) => app === value),
    );
    return held ? language.reference.app(network) : undefined;
  }
  if (kind !== 'unit-id') return undefined;
  const held = Object.entries(title.placements).flatMap(([name, { units }]) =>
    Object.values(valueAt(units, network) ?? {}).some((stages) => Object.values(stages).includes(value))
      ? [name]
      : [],
  );
  // A sample of the network stands for a placement if only that one uses it for testing.
  const given = expectedIds(title, profiles, platform).flatMap((item) =>
    item.network === network && item.id === value ? (item.placement ?? []) : [],
  );
  const [holder, ...others] = new Set([...held, ...given]);
  return holder !== undefined && others.length === 0 ? language.reference.unit(holder, network) : undefined;
}

/**
 * A choice between IDs of one placement (one per platform, or per stage) is replaced as a whole, because the placebook
 * makes this choice. Undefined if the literal is not in such a choice.
 */
function choiceEdits(
  context: CallSiteContext,
  { lines }: TextDocument,
  fact: Fact,
  language: Language,
  reference: string,
): Edit[] | undefined {
  const at = lines.lineStart(fact.place.line) + fact.place.column - 1;
  const around = readingOf(context.tree, fact.place.path).choices.find(
    ({ start, end, values, isValue }) =>
      isValue !== false &&
      start <= at &&
      at < end &&
      values.every(
        (value) =>
          value.is === 'text' &&
          referenceFor(context, { ...fact, value: value.value }, language) === reference,
      ),
  );
  return around && [{ start: around.start, end: around.end, text: reference }];
}

/** The literal, its quotes included, replaced; undefined unless it is a plain literal on one line. */
function literalEdits(
  { text, lines }: TextDocument,
  { place, value, code }: Fact,
  { reference, language }: { reference: string; language: Language },
): Edit[] {
  const inner = lines.lineStart(place.line) + place.column - 1;
  const end = inner + value.length;
  const quote = text[inner - 1];
  const quoted = quote !== undefined && `"'${language.quotes ?? ''}`.includes(quote);
  const plain = text.slice(inner, end) === value && quoted && text[end] === quote;
  if (!plain || text[inner - 2] === quote || text[end + 1] === quote) return [];
  // `@"…"` of Objective-C and C#, and `#"…"#` of Swift, go whole.
  const signs = /#*$/.exec(text.slice(0, inner - 1))?.[0].length ?? 0;
  if (text.slice(end + 1, end + 1 + signs) !== '#'.repeat(signs)) return [];
  const start = text[inner - 2] === '@' ? inner - 2 : inner - 1 - signs;
  const at = { before: text[start - 1], isArgument: code?.flow?.into === 'argument' };
  const placed = language.reference.inPlace?.(reference, at) ?? reference;
  const edit = { start, end: end + 1 + signs, text: placed };
  const line = text.slice(lines.lineStart(place.line), start);
  const found = language.constant?.word.exec(line);
  if (!found) return [edit];
  const wordStart = start - line.length + found.index;
  const wordEnd = wordStart + found[0].length;
  // A constant of a method is a variable then.
  const instead = language.constant?.instead((code?.methods.length ?? 0) > 0) ?? '';
  // A word that goes takes the blanks behind it along.
  const blanks = instead === '' ? (/^\s*/.exec(text.slice(wordEnd))?.[0].length ?? 0) : 0;
  return [{ start: wordStart, end: wordEnd + blanks, text: instead }, edit];
}

/** The names of the placebook that the references in a file will need, on either platform. */
function namesIn(context: CallSiteContext, path: string, language: Language): string[] {
  const references = context.facts.flatMap((fact) =>
    fact.place.path === path && isInCode(fact)
      ? (referenceFor({ ...context, platform: fact.platform }, fact, language) ?? [])
      : [],
  );
  const names = references.flatMap((reference) => reference.match(/\bPlacebook\w*/g) ?? []);
  return [...new Set(names)].sort();
}
