import csharp from 'highlight.js/lib/languages/csharp';
import dart from 'highlight.js/lib/languages/dart';
import gradle from 'highlight.js/lib/languages/gradle';
import ini from 'highlight.js/lib/languages/ini';
import java from 'highlight.js/lib/languages/java';
import json from 'highlight.js/lib/languages/json';
import kotlin from 'highlight.js/lib/languages/kotlin';
import objectivec from 'highlight.js/lib/languages/objectivec';
import properties from 'highlight.js/lib/languages/properties';
import ruby from 'highlight.js/lib/languages/ruby';
import swift from 'highlight.js/lib/languages/swift';
import typescript from 'highlight.js/lib/languages/typescript';
import xml from 'highlight.js/lib/languages/xml';
import yaml from 'highlight.js/lib/languages/yaml';
import { createLowlight } from 'lowlight';

const lowlight = createLowlight({
  csharp,
  dart,
  gradle,
  ini,
  java,
  json,
  kotlin,
  objectivec,
  properties,
  ruby,
  swift,
  typescript,
  xml,
  yaml,
});

/** The language of a file by the end of its name; files of other names are shown as they are. */
const bySuffix: readonly (readonly [suffix: RegExp, language: string])[] = [
  [/\.(xml|plist|storyboard|xib|entitlements|csproj|props|targets|xaml|asset)$/i, 'xml'],
  [/\.(kts?|kotlin)$/i, 'kotlin'],
  [/\.gradle$/i, 'gradle'],
  [/\.java$/i, 'java'],
  [/\.swift$/i, 'swift'],
  [/\.(m|mm|h)$/i, 'objectivec'],
  [/\.dart$/i, 'dart'],
  [/\.cs$/i, 'csharp'],
  [/\.([cm]?[jt]sx?)$/i, 'typescript'],
  [/\.(json|resolved)$/i, 'json'],
  [/\.(ya?ml|lock)$/i, 'yaml'],
  [/\.(properties|pro)$/i, 'properties'],
  [/\.(toml|xcconfig|ini)$/i, 'ini'],
  [/(^|\/)Podfile$/, 'ruby'],
];

/** A part of a line, and the class of its colour; empty where it has none. */
export interface Token {
  text: string;
  className: string;
}

type Node = ReturnType<typeof lowlight.highlight>['children'][number];

/** The tokens of each line of a part of a file. */
export function highlightLines(path: string, lines: readonly string[]): Token[][] {
  const language = bySuffix.find(([suffix]) => suffix.test(path))?.[1];
  if (language === undefined) return lines.map((text) => [{ text, className: '' }]);
  const found: Token[][] = [[]];
  const walk = (nodes: readonly Node[], className: string) => {
    for (const node of nodes)
      if (node.type === 'text')
        for (const [index, text] of node.value.split('\n').entries()) {
          if (index > 0) found.push([]);
          if (text !== '') found.at(-1)?.push({ text, className });
        }
      else if (node.type === 'element') walk(node.children, classOf(node.properties.className) ?? className);
  };
  walk(lowlight.highlight(language, lines.join('\n')).children, '');
  return found;
}

function classOf(names: unknown): string | undefined {
  return Array.isArray(names) ? names.join(' ') : undefined;
}
