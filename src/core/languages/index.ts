import type { GrammarName } from '../syntax/grammars.js';
import type { Platform } from '../words/words.js';
import * as all from './all.js';
import type { Dialect, Language as AnyLanguage } from './language.js';

export type LanguageName = (typeof all)[keyof typeof all]['id'];
export type Language = AnyLanguage<LanguageName>;

/** Every language whose sources are read and written. */
export const languages: readonly Language[] = Object.values(all);

export const languageNames = languages.map(({ id }) => id);

const byName = new Map<LanguageName, Language>(languages.map((language) => [language.id, language]));

/** A language by its name. */
export function languageNamed(name: LanguageName): Language {
  const found = byName.get(name);
  if (!found) throw new Error(`There is no language ${name}.`);
  return found;
}

/** The languages that native code of a platform is written in. */
export function nativeLanguages(platform?: Platform): LanguageName[] {
  return languages.flatMap(({ id, native }) =>
    native !== undefined && (platform === undefined || native === platform) ? [id] : [],
  );
}

/** Every dialect with its language. */
export const dialects: readonly { language: Language; dialect: Dialect }[] = languages.flatMap((language) =>
  language.dialects.map((dialect) => ({ language, dialect })),
);

/** How a source file is read; undefined for one in a language that is not. */
export function dialectOf(path: string): { language: Language; dialect: Dialect } | undefined {
  return dialects.find(({ dialect }) => dialect.suffixes.some((suffix) => path.endsWith(suffix)));
}

/** The language of a source file; undefined for one that is not read. */
export function languageOf(path: string): Language | undefined {
  return dialectOf(path)?.language;
}

/** The grammars that the files of a tree need. */
export function grammarsOf(paths: readonly string[]): Set<GrammarName> {
  const found = new Set<GrammarName>();
  for (const path of paths) {
    if (path === 'Podfile' || path.endsWith('/Podfile')) found.add('ruby');
    if (/(^|\/)react-native\.config\.\w+$/.test(path)) found.add('tsx');
    const dialect = dialectOf(path)?.dialect;
    if (dialect) found.add(dialect.syntax.grammar);
  }
  return found;
}
