import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { readingOf, type CodeFile } from '../../../code/source-files.js';
import { languageOf } from '../../../languages/index.js';
import { codeAlone } from '../../../syntax/literals.js';
import type { Tree } from '../../../tree/tree.js';

/** Texts by which the files are found that say which class an app is given as its delegate. */
export const delegateNeedles = ['UIApplicationDelegate', 'UIApplicationMain'];

/**
 * How an app is given its delegate. Sources: Apple, "UIApplicationDelegateAdaptor", "UIApplicationMain"; The Swift
 * Programming Language, "Attributes".
 */
const given = [
  /UIApplicationDelegateAdaptor\s*\(\s*(\w{1,120})\.self/g,
  /UIApplicationDelegateAdaptor\s+(?:(?:private|fileprivate|internal|public|var|static)\s+){1,4}\w{1,120}\s*:\s*(\w{1,120})/g,
  /@(?:main|UIApplicationMain)\b[^{}]{0,200}?\bclass\s+(\w{1,120})/g,
  /UIApplicationMain\s*\([^;]{0,300}?NSStringFromClass\s*\(\s*\[?\s*(\w{1,120})/g,
  /UIApplicationMain\s*\([^;]{0,300}?@"(\w{1,120})"/g,
];

/** The delegate classes of an app and the one that it is given, in one source file. */
export function delegateFacts(tree: Tree, file: CodeFile): Fact[] {
  const document = tree.text(file.path);
  const language = languageOf(file.path);
  if (!document || !language || !delegateNeedles.some((needle) => document.text.includes(needle))) return [];
  const { platform, module, variants } = file;
  const own = readingOf(tree, file.path).types.flatMap((type) =>
    type.bases
      .filter((base) => /Delegate$/.test(base))
      .map((base) => ({ start: type.start, end: type.start + 1, value: type.name, name: `extends ${base}` })),
  );
  const code = language.id === 'swift' ? codeAlone(document.text, language.literals) : document.text;
  const said = given.flatMap((pattern) =>
    [...code.matchAll(pattern)].flatMap((match) => {
      const [whole, value] = match;
      return value === undefined
        ? []
        : [{ start: match.index, end: match.index + whole.length, value, name: undefined }];
    }),
  );
  return [...own, ...said].flatMap(({ start, end, value, name }): Fact[] => {
    const compiled = variants.filter((variant) => file.compiled(variant, start, []) !== 'no');
    if (compiled.length === 0) return [];
    const place = placeAt(file.path, document, { start, end });
    const chain = [{ what: 'code', value, place }];
    const edition = { platform, module, variants: compiled, effective: true as const };
    const more = { value, ...(name === undefined ? {} : { name }), place, chain };
    return [{ kind: 'app-delegate', network: null, ...edition, ...more }];
  });
}
