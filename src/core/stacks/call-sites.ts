import { appReference, unitReference, type PlacebookLanguage } from '../placebook/references.js';
import type { Platform, Profile } from '../network/model.js';
import { expectedIds } from '../roster/expected.js';
import type { Title } from '../roster/model.js';
import type { Fact } from '../survey/model.js';
import type { TextDocument } from '../text/document.js';
import type { Edit } from '../text/edit.js';
import type { Tree } from '../tree/tree.js';
import type { Change } from '../wiring/model.js';

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
}

const rules = [
  'code/hard-coded-id',
  'unit-id/wrong-platform',
  'stage/test-id-in-production',
  'stage/production-id-in-test',
];

/** IDs in code that the roster knows, replaced by references to the placebook, with the import that these need. */
export function callSiteChanges(context: CallSiteContext): Change[] {
  const { tree, platform, module, facts, profiles } = context;
  const seen = new Set<string>();
  return facts.flatMap((fact): Change[] => {
    const { network, place, standsIn } = fact;
    const profile = profiles.find(({ id }) => id === network);
    const language = languageOf(place.path);
    const document = tree.text(place.path);
    const key = `${place.path} ${place.line} ${place.column}`;
    if (!profile || standsIn !== 'code' || fact.module !== module || fact.platform !== platform) return [];
    if (!language || !context.languages.includes(language) || !document || seen.has(key)) return [];
    const reference = referenceFor(context, fact, language);
    if (reference === undefined) return [];
    seen.add(key);
    const replaced = literalEdits(document, fact, reference);
    if (replaced.length === 0) return [];
    const edits = [...replaced, ...importEdits(context, document, language)];
    return [{ path: place.path, platform, network, topic: 'call-sites', rules, edits }];
  });
}

function languageOf(path: string): PlacebookLanguage | undefined {
  if (path.endsWith('.kt')) return 'kotlin';
  if (path.endsWith('.java')) return 'java';
  if (path.endsWith('.swift')) return 'swift';
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
    const held = Object.values(title.networks[network] ?? {}).some((stages) =>
      Object.values(stages).some(({ app }) => app === value),
    );
    return held ? appReference(language, network) : undefined;
  }
  if (kind !== 'unit-id') return undefined;
  const held = Object.entries(title.placements).flatMap(([name, { units }]) =>
    Object.values(units[network] ?? {}).some((stages) => Object.values(stages).includes(value)) ? [name] : [],
  );
  // A sample of the network stands for a placement when one alone is given it for testing.
  const given = expectedIds(title, profiles, platform).flatMap((item) =>
    item.network === network && item.id === value ? (item.placement ?? []) : [],
  );
  const [holder, ...others] = new Set([...held, ...given]);
  return holder !== undefined && others.length === 0 ? unitReference(language, holder, network) : undefined;
}

/** The literal, its quotes included, replaced; none where it is no plain literal of one line. */
function literalEdits({ text, lines }: TextDocument, { place, value }: Fact, reference: string): Edit[] {
  const inner = lines.lineStart(place.line) + place.column - 1;
  const end = inner + value.length;
  const plain = text.slice(inner, end) === value && text[inner - 1] === '"' && text[end] === '"';
  if (!plain || text[inner - 2] === '"' || text[end + 1] === '"') return [];
  const start = text[inner - 2] === '@' ? inner - 2 : inner - 1;
  const edit = { start, end: end + 1, text: reference };
  // What the placebook works out when it is loaded is no constant of the compiler.
  const constant = /\bconst\s+(?=val\s+\w+(?:\s*:\s*String)?\s*=\s*$)/.exec(text.slice(0, start));
  if (!constant) return [edit];
  return [{ start: constant.index, end: constant.index + constant[0].length, text: '' }, edit];
}

/** The import of the placebook, after the last one of the file. */
function importEdits(
  { packageName }: CallSiteContext,
  { text, lineEnd }: TextDocument,
  language: PlacebookLanguage,
): Edit[] {
  if (language === 'swift') return [];
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
