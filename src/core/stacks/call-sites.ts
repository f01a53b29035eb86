import { isIdFact } from '../facts/model.js';
import { valueAt } from '../text/own-values.js';
import { readingOf } from '../code/source-files.js';
import { appReference, unitReference, type PlacebookLanguage } from '../placebook/references.js';
import type { Profile } from '../network/model.js';
import type { Platform } from '../words/words.js';
import { expectedIds } from '../roster/expected.js';
import type { Title } from '../roster/model.js';
import type { Fact } from '../facts/model.js';
import type { TextDocument } from '../text/document.js';
import type { Edit } from '../text/edit.js';
import type { Tree } from '../tree/tree.js';
import type { Change } from '../edits/model.js';
import { moduleImport } from './module-import.js';

/** What replacing IDs in code needs to know. */
export interface CallSiteContext {
  tree: Tree;
  platform: Platform;
  module: string;
  facts: readonly Fact[];
  title: Title;
  profiles: readonly Profile[];
  /** The languages that have a placebook in this edition. */
  languages: readonly PlacebookLanguage[];
  /** The package that the placebook stands in, for languages that import it. */
  packageName?: string | undefined;
  /** Where the placebook stands, for languages that import by path. */
  bookPath?: string;
}

const rules = [
  'code/hard-coded-id',
  'unit-id/wrong-platform',
  'stage/test-id-in-production',
  'stage/production-id-in-test',
];

/** Whether a fact is an ID that code names as a literal. */
function isInCode(fact: Fact): boolean {
  return isIdFact(fact) && fact.carrier === 'code';
}

/** IDs in code that the roster knows, replaced by references to the placebook, with the import that these need. */
export function callSiteChanges(context: CallSiteContext): Change[] {
  const { tree, platform, module, facts, profiles } = context;
  const seen = new Set<string>();
  return facts.flatMap((fact): Change[] => {
    const { network, place } = fact;
    const profile = profiles.find(({ id }) => id === network);
    const language = languageOf(place.path);
    const document = tree.text(place.path);
    const key = `${place.path} ${place.line} ${place.column}`;
    if (!profile || !isInCode(fact) || fact.module !== module || fact.platform !== platform) return [];
    if (!language || !context.languages.includes(language) || !document || seen.has(key)) return [];
    const reference = referenceFor(context, fact, language);
    if (reference === undefined) return [];
    seen.add(key);
    const replaced =
      choiceEdits(context, document, fact, language, reference) ??
      literalEdits(document, fact, { reference, language });
    if (replaced.length === 0) return [];
    const imports =
      language === 'typescript'
        ? moduleImport(document, place.path, context.bookPath, namesIn(context, place.path))
        : importEdits(context, document, language);
    const edits = [...replaced, ...imports];
    return [{ path: place.path, platform, network, topic: 'call-sites', rules, kind: 'edit', edits }];
  });
}

function languageOf(path: string): PlacebookLanguage | undefined {
  if (path.endsWith('.kt')) return 'kotlin';
  if (path.endsWith('.java')) return 'java';
  if (path.endsWith('.swift')) return 'swift';
  if (path.endsWith('.dart')) return 'dart';
  if (path.endsWith('.cs')) return 'csharp';
  if (/\.(?:[cm]?[jt]s|[jt]sx)$/.test(path)) return 'typescript';
  return /\.mm?$/.test(path) ? 'objective-c' : undefined;
}

/** The reference for an ID; undefined when the roster gives it to none, or to several. */
function referenceFor(
  { title, profiles, platform }: CallSiteContext,
  { kind, network, value }: Fact,
  language: PlacebookLanguage,
): string | undefined {
  if (network === null) return undefined;
  if (kind === 'app-id') {
    const held = Object.values(valueAt(title.networks, network) ?? {}).some((stages) =>
      Object.values(stages).some(({ app }) => app === value),
    );
    return held ? appReference(language, network) : undefined;
  }
  if (kind !== 'unit-id') return undefined;
  const held = Object.entries(title.placements).flatMap(([name, { units }]) =>
    Object.values(valueAt(units, network) ?? {}).some((stages) => Object.values(stages).includes(value))
      ? [name]
      : [],
  );
  // A sample of the network stands for a placement when one alone is given it for testing.
  const given = expectedIds(title, profiles, platform).flatMap((item) =>
    item.network === network && item.id === value ? (item.placement ?? []) : [],
  );
  const [holder, ...others] = new Set([...held, ...given]);
  return holder !== undefined && others.length === 0 ? unitReference(language, holder, network) : undefined;
}

/**
 * A choice whose every value is an ID of the same placement (one per platform, or per stage) goes as a whole: the
 * placebook makes it. Undefined where the literal stands in no such choice.
 */
function choiceEdits(
  context: CallSiteContext,
  { lines }: TextDocument,
  fact: Fact,
  language: PlacebookLanguage,
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

/** The literal, its quotes included, replaced; none where it is no plain literal of one line. */
function literalEdits(
  { text, lines }: TextDocument,
  { place, value, code }: Fact,
  { reference, language }: { reference: string; language: PlacebookLanguage },
): Edit[] {
  const inner = lines.lineStart(place.line) + place.column - 1;
  const end = inner + value.length;
  const quote = text[inner - 1];
  const quoted = quote === '"' || quote === "'" || (quote === '`' && language === 'typescript');
  const plain = text.slice(inner, end) === value && quoted && text[end] === quote;
  if (!plain || text[inner - 2] === quote || text[end + 1] === quote) return [];
  const start = text[inner - 2] === '@' ? inner - 2 : inner - 1;
  // An attribute of an element takes a text as it stands, and everything else in braces.
  const attribute = language === 'typescript' && text[start - 1] === '=' && code?.flow?.into === 'argument';
  const edit = { start, end: end + 1, text: attribute ? `{${reference}}` : reference };
  const line = text.slice(lines.lineStart(place.line), start);
  const found = constantWord[language]?.exec(line);
  if (!found) return [edit];
  const at = start - line.length + found.index;
  const word = found[0];
  // A constant of a method is a variable then; `const` goes with the blanks behind it.
  const local = language === 'csharp' && (code?.methods.length ?? 0) > 0;
  const instead = language === 'dart' ? 'final' : language === 'csharp' && !local ? 'static readonly' : '';
  const blanks = local ? (/^\s*/.exec(text.slice(at + word.length))?.[0].length ?? 0) : 0;
  return [{ start: at, end: at + word.length + blanks, text: instead }, edit];
}

/** What marks a constant of the compiler, which a value that the placebook works out when it is loaded is not. */
const constantWord: Partial<Record<PlacebookLanguage, RegExp>> = {
  csharp: /\bconst(?=\s+string\s+\w+\s*=\s*$)/,
  kotlin: /\bconst\s+(?=val\s+\w+(?:\s*:\s*String)?\s*=\s*$)/,
  dart: /\bconst(?=\s+(?:String\s+)?\w+\s*=\s*$)/,
};

/** The import of the placebook, after the last one of the file. */
function importEdits(
  { packageName }: CallSiteContext,
  { text, lineEnd }: TextDocument,
  language: PlacebookLanguage,
): Edit[] {
  if (language === 'swift') return [];
  if (language === 'csharp') return csharpUsing(packageName, text, lineEnd);
  if (language === 'dart') return dartImport(packageName, text, lineEnd);
  if (language === 'objective-c') {
    if (/^#import "Placebook\.h"/m.test(text)) return [];
    const last = [...text.matchAll(/^#(?:import|include)[^\r\n]*(?:\r\n|\n|\r)/gm)].at(-1);
    const at = last ? last.index + last[0].length : 0;
    return [{ start: at, end: at, text: `#import "Placebook.h"${lineEnd}` }];
  }
  const own = /^[ \t]*package\s+([\w.]+)/m.exec(text);
  if (packageName === undefined || own?.[1] === packageName) return [];
  const end = language === 'java' ? ';' : '';
  const line = `import ${packageName}.Placebook${end}`;
  if (text.includes(`import ${packageName}.Placebook`) || text.includes(`import ${packageName}.*`)) return [];
  const imports = [...text.matchAll(/^[ \t]*import[^\r\n]*(?:\r\n|\n|\r)/gm)];
  const last = imports.at(-1);
  if (last) {
    const at = last.index + last[0].length;
    return [{ start: at, end: at, text: `${line}${lineEnd}` }];
  }
  const header = /^[ \t]*package[^\r\n]*(?:\r\n|\n|\r)/m.exec(text);
  const at = header ? header.index + header[0].length : 0;
  return [{ start: at, end: at, text: `${header ? lineEnd : ''}${line}${lineEnd}${header ? '' : lineEnd}` }];
}

/** Code of the placebook's own namespace, or of one inside it, sees it as it is. */
function csharpUsing(namespace: string | undefined, text: string, lineEnd: string): Edit[] {
  const own = /^[ \t]*namespace\s+([\w.]+)/m.exec(text)?.[1];
  if (namespace === undefined || own === namespace || own?.startsWith(`${namespace}.`)) return [];
  if (new RegExp(`^[ \\t]*(?:global )?using\\s+${namespace.replace(/\./g, '\\.')};`, 'm').test(text))
    return [];
  const last = [...text.matchAll(/^using\s+[^=(;]*;[^\r\n]*(?:\r\n|\n|\r)/gm)].at(-1);
  const at = last ? last.index + last[0].length : 0;
  return [{ start: at, end: at, text: `using ${namespace};${lineEnd}${last ? '' : lineEnd}` }];
}

/** The import stands among those of packages, in the order of the alphabet, before those of files. */
function dartImport(uri: string | undefined, text: string, lineEnd: string): Edit[] {
  if (uri === undefined || text.includes(`'${uri}'`) || text.includes(`"${uri}"`)) return [];
  const all = [...text.matchAll(/^import\s+(['"])([^'"]*)\1[^;]*;[^\r\n]*(?:\r\n|\n|\r|$)/gm)].map(
    (found) => ({
      uri: found[2] ?? '',
      start: found.index,
      end: found.index + found[0].length,
    }),
  );
  const packages = all.filter((one) => one.uri.startsWith('package:'));
  const before = packages.findLast((one) => one.uri < uri);
  const line = `import '${uri}';${lineEnd}`;
  const insert = (at: number, put: string): Edit[] => [{ start: at, end: at, text: put }];
  if (before) return insert(before.end, line);
  const [next] = packages;
  if (next) return insert(next.start, line);
  const sdk = all.findLast((one) => one.uri.startsWith('dart:'));
  if (sdk) return insert(sdk.end, `${lineEnd}${line}`);
  const [file] = all;
  if (file) return insert(file.start, `${line}${lineEnd}`);
  const library = /^library\b[^;]*;[^\r\n]*(?:\r\n|\n|\r|$)/m.exec(text);
  const at = library ? library.index + library[0].length : 0;
  return insert(at, `${library ? lineEnd : ''}${line}${lineEnd}`);
}

/** The names of the placebook that the references in a file will need, on either platform. */
function namesIn(context: CallSiteContext, path: string): string[] {
  const references = context.facts.flatMap((fact) =>
    fact.place.path === path && isInCode(fact)
      ? (referenceFor({ ...context, platform: fact.platform }, fact, 'typescript') ?? [])
      : [],
  );
  const names = references.flatMap((reference) => reference.match(/\bPlacebook\w*/g) ?? []);
  return [...new Set(names)].sort();
}
