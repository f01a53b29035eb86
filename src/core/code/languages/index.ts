import type { SyntaxLanguage } from '../../syntax/grammars.js';
import type { CodeLanguage } from '../../syntax/shape.js';
import { csharp } from './csharp.js';
import { dart } from './dart.js';
import { java } from './java.js';
import { kotlin } from './kotlin.js';
import { objectiveC } from './objective-c.js';
import { swift } from './swift.js';
import { tsx, typescript } from './typescript.js';

/** The languages whose sources are read, and the ends of their files' names. */
export const codeLanguages: readonly { language: CodeLanguage; suffixes: readonly string[] }[] = [
  { language: csharp, suffixes: ['.cs'] },
  { language: dart, suffixes: ['.dart'] },
  { language: java, suffixes: ['.java'] },
  { language: kotlin, suffixes: ['.kt'] },
  { language: objectiveC, suffixes: ['.m', '.mm'] },
  { language: swift, suffixes: ['.swift'] },
  { language: tsx, suffixes: ['.tsx', '.jsx', '.js', '.mjs', '.cjs'] },
  { language: typescript, suffixes: ['.ts', '.mts', '.cts'] },
];

/** The language of a source file; undefined for one that is not read. */
export function languageOf(path: string): CodeLanguage | undefined {
  return codeLanguages.find(({ suffixes }) => suffixes.some((suffix) => path.endsWith(suffix)))?.language;
}

/** The languages that the files of a tree are written in, as far as they are read by syntax tree. */
export function languagesOf(paths: readonly string[]): Set<SyntaxLanguage> {
  const found = new Set<SyntaxLanguage>();
  for (const path of paths) {
    if (path === 'Podfile' || path.endsWith('/Podfile')) found.add('ruby');
    if (/(^|\/)react-native\.config\.\w+$/.test(path)) found.add('tsx');
    const language = languageOf(path);
    if (language) found.add(language.grammar ?? language.id);
  }
  return found;
}
