import { readSource } from '../../src/core/code/read-source.js';
import { preprocessed } from '../../src/core/syntax/preprocessor.js';
import { dialects } from '../../src/core/languages/index.js';
import { readStrings } from '../../src/core/formats/android-resources/read.js';
import { readEas } from '../../src/core/formats/app-config/eas.js';
import { readAppJson } from '../../src/core/formats/app-config/read-json.js';
import { readAppScript } from '../../src/core/formats/app-config/read-script.js';
import { readAttributionList } from '../../src/core/formats/attribution-list/read.js';
import { readGradle } from '../../src/core/formats/gradle/read.js';
import { readMsBuild } from '../../src/core/formats/msbuild/read.js';
import {
  readBunLock,
  readNpmLock,
  readPnpmLock,
  readYarnLock,
} from '../../src/core/formats/package-json/locks.js';
import { readPackageJson } from '../../src/core/formats/package-json/read.js';
import { readPackageResolved } from '../../src/core/formats/package-resolved/read.js';
import { readPbxproj } from '../../src/core/formats/pbxproj/read.js';
import { readBinaryPlist } from '../../src/core/formats/plist/binary.js';
import { readPlist } from '../../src/core/formats/plist/read.js';
import { readPodfileLock } from '../../src/core/formats/podfile/lock.js';
import { readPodfile } from '../../src/core/formats/podfile/read.js';
import { readPnpmWorkspace } from '../../src/core/formats/pnpm-workspace/read.js';
import { readPubspecLock } from '../../src/core/formats/pubspec/lock.js';
import { readPubspec } from '../../src/core/formats/pubspec/read.js';
import { readUnityYaml } from '../../src/core/formats/unity-yaml/read.js';
import { readVersionCatalog } from '../../src/core/formats/version-catalog/read.js';
import { readXcconfig } from '../../src/core/formats/xcconfig/read.js';
import { readXml } from '../../src/core/formats/xml/read.js';
import { readYaml } from '../../src/core/formats/yaml/read.js';
import { readUnitTable } from '../../src/core/inventory/csv.js';
import { readProfile } from '../../src/core/network/read.js';
import { readPlacebook } from '../../src/core/placebook/read.js';
import { readRoster } from '../../src/core/roster/document.js';
import { readVast } from '../../src/core/formats/vast/read.js';
import { readAppAds } from '../../src/core/standards/app-ads.js';
import { readPattern } from '../../src/core/text/patterns.js';
import { filesBelow, profileOf, root, syntax } from './trees.js';

/** A reader of one format or language, and which files of the demo are written in it. */
export interface AnyReader {
  name: string;
  read: (text: string) => unknown;
  seeds: readonly string[];
  /** Whether it has a syntax tree made of its text. */
  parsed?: true;
}

const files = Object.entries(filesBelow(`${root}/demo`)).map(([path, bytes]) => ({
  path,
  text: bytes.toString('utf8'),
}));
const written = (pattern: RegExp) =>
  files.filter(({ path, text }) => pattern.test(path) && text.length < 20_000).map(({ text }) => text);
const profileTexts = Object.values(filesBelow(`${root}/profiles`)).map((bytes) => bytes.toString('utf8'));
const table =
  'Unit ID,Unit name,Format,Platform,App ID,Status\nCH-U-204418-P4N7C2VJ,"Tide, footer",banner,android,,serving\n';
const appAds =
  'cobaltheron.example, 204418, DIRECT, c0ba17he # note\nOWNERDOMAIN=saltmarsh.example\n\ncontact=a@b.example\n';

const formats: AnyReader[] = [
  { name: 'XML', read: readXml, seeds: written(/\.(xml|storyboard|svg|xaml)$/) },
  { name: 'Android strings', read: readStrings, seeds: written(/values.*\.xml$/) },
  { name: 'MSBuild', read: readMsBuild, seeds: written(/\.(csproj|props|targets)$/) },
  { name: 'property lists', read: readPlist, seeds: written(/\.plist$/) },
  {
    name: 'binary property lists',
    read: (text) => readBinaryPlist(Buffer.from(text, 'latin1')),
    seeds: [
      Buffer.from(
        'YnBsaXN0MDDRAQJVdGl0bGVUS2VscAgLEQAAAAAAAAEBAAAAAAAAAAMAAAAAAAAAAAAAAAAAAAAW',
        'base64',
      ).toString('latin1'),
    ],
  },
  {
    name: 'attribution lists',
    read: readAttributionList,
    seeds: [
      ...written(/\.plist$/),
      '{"skadnetwork_ids":[{"skadnetwork_id":"abcde12345.skadnetwork"}]}',
      '<l><i id="abcde12345.skadnetwork"/></l>',
    ],
  },
  { name: 'Gradle', read: readGradle, seeds: written(/\.(gradle|kts)$/) },
  { name: 'version catalogues', read: readVersionCatalog, seeds: written(/\.toml$/) },
  { name: 'Podfiles', parsed: true, read: (text) => readPodfile(text, syntax), seeds: written(/Podfile$/) },
  {
    name: 'Podfile locks',
    read: readPodfileLock,
    seeds: [
      'PODS:\n  - CobaltHeron (5.1.0):\n    - Core (= 1.0)\n\nDEPENDENCIES:\n  - CobaltHeron (~> 5.1)\n',
    ],
  },
  { name: 'Xcode projects', read: readPbxproj, seeds: written(/\.pbxproj$/) },
  { name: 'Xcode settings', read: readXcconfig, seeds: written(/\.xcconfig$/) },
  {
    name: 'Package.resolved',
    read: readPackageResolved,
    seeds: [
      '{"pins":[{"identity":"heron","location":"https://heron.example","state":{"version":"1.0.0"}}],"version":2}',
    ],
  },
  { name: 'YAML', read: readYaml, seeds: [...written(/\.ya?ml$/), ...profileTexts] },
  { name: 'pubspec', read: readPubspec, seeds: written(/pubspec\.yaml$/) },
  { name: 'pubspec locks', read: readPubspecLock, seeds: written(/pubspec\.lock$/) },
  { name: 'Unity YAML', read: readUnityYaml, seeds: written(/\.(asset|unity|meta)$/) },
  { name: 'package.json', read: readPackageJson, seeds: written(/package\.json$/) },
  {
    name: 'npm locks',
    read: readNpmLock,
    seeds: written(/package-lock\.json$/).length
      ? written(/package-lock\.json$/)
      : ['{"packages":{"node_modules/heron":{"version":"1.0.0"}}}'],
  },
  { name: 'Bun locks', read: readBunLock, seeds: ['{"packages":{"heron":["heron@1.0.0","",{},"sha"],}}'] },
  {
    name: 'Yarn locks',
    read: readYarnLock,
    seeds: [
      'heron@^1.0.0:\n  version "1.0.0"\n  dependencies:\n    a "^1"\n',
      '"heron@npm:^1.0.0":\n  version: 1.0.0\n',
    ],
  },
  {
    name: 'pnpm workspaces',
    read: readPnpmWorkspace,
    seeds: ['packages:\n  - apps/*\n  - "!apps/old"\nlinkWorkspacePackages: true\n'],
  },
  {
    name: 'pnpm locks',
    read: readPnpmLock,
    seeds: ["lockfileVersion: '9.0'\npackages:\n  heron@1.0.0:\n    resolution: {integrity: sha}\n"],
  },
  { name: 'app.json', read: readAppJson, seeds: written(/app\.json$/) },
  {
    name: 'app.config scripts',
    parsed: true,
    read: (text) => readAppScript(text, syntax),
    seeds: written(/app\.config\.(ts|js)$|\.js$/),
  },
  { name: 'eas.json', read: readEas, seeds: written(/eas\.json$/) },
  { name: 'rosters', read: readRoster, seeds: written(/roster\.yaml$/) },
  { name: 'profiles', read: readProfile, seeds: profileTexts.filter((text) => text.length < 20_000) },
  { name: 'VAST documents', read: readVast, seeds: written(/tags\/.*\.xml$/) },
  { name: 'app-ads.txt', read: readAppAds, seeds: [appAds] },
  { name: 'tables of units', read: (text) => readUnitTable(text, profileOf('cobalt-heron')), seeds: [table] },
  {
    name: 'placebooks',
    read: readPlacebook,
    seeds: written(/Placebook\.|placebook/).concat(['// syndexa placebook\nconst a = 1;\n']),
  },
  {
    name: 'patterns of profiles',
    read: (text) => {
      try {
        return readPattern(text.slice(0, 500)).matches('CH-A-204418-7KQ2M9TD'.repeat(50));
      } catch (error) {
        // That a pattern is refused is no fault.
        if (error instanceof Error && error.name === 'PatternError') return null;
        throw error;
      }
    },
    seeds: ['^CH-A-\\d{6}-[A-Z0-9]{8}$', '(?:a|a)*b', '[a-z]+(?P<x>\\w{2,5})?'],
  },
  { name: 'preprocessor lines', read: preprocessed, seeds: written(/\.(cs|m|mm|h)$/) },
];

const languages: AnyReader[] = dialects.map(({ dialect: { suffixes, syntax: language } }) => ({
  name: `code in ${language.grammar}`,
  parsed: true,
  read: (text) => readSource(language, text, syntax),
  seeds: files
    .filter(({ path, text }) => suffixes.some((suffix) => path.endsWith(suffix)) && text.length < 20_000)
    .map(({ text }) => text),
}));

/** Every reader of text that comes from a tree, a person or a network. */
export const readers: readonly AnyReader[] = [...formats, ...languages].map((reader) => ({
  ...reader,
  seeds: reader.seeds.length > 0 ? reader.seeds : ['a { b("c") }\n'],
}));

/** Texts that readers have to notice, and that are easily one too many or one too few. */
export const tokens = [
  '"',
  "'",
  '`',
  '"""',
  '\\',
  '\\"',
  '(',
  ')',
  '[',
  ']',
  '{',
  '}',
  '<',
  '>',
  '</',
  '/>',
  '<!--',
  '-->',
  '<![CDATA[',
  ']]>',
  '&',
  '&#x',
  '<!DOCTYPE a [',
  '${',
  '$(',
  '#{',
  '$',
  '#if A\n',
  '#else\n',
  '#endif\n',
  '/*',
  '*/',
  '//',
  '#',
  '\n',
  '\r\n',
  '\r',
  '\t',
  ' ',
  ';',
  ',',
  ':',
  '=',
  '==',
  '- ',
  '? ',
  '|\n',
  '>\n',
  '&a ',
  '*a ',
  '<<: *a\n',
  '%YAML 1.1\n---\n',
  '---\n',
  '!!binary ',
  'if (a) ',
  'a<',
  'a.',
  '@A ',
  'do\n',
  'end\n',
  'end end ',
  'def a\n',
  '->',
  '=>',
  '::',
  '!',
  '~>',
  '\u0000',
  '\uFEFF',
  '\uD800',
  '\u2028',
  '\u001b[31m',
  '0',
  '-1',
  '1e999',
  '9'.repeat(30),
  'null',
  'true',
  '__proto__',
  'constructor',
  'a'.repeat(300),
  '漢字',
  'é',
];

/** A text with some of it taken out, doubled, repeated, moved, or put in. */
export function mutated(text: string, other: string, random: () => number): string {
  const at = (length: number) => Math.floor(random() * (length + 1));
  let now = text;
  for (let step = at(5); step >= 0; step--) {
    const from = at(now.length);
    const to = Math.min(now.length, from + at(random() < 0.5 ? 8 : 400));
    const [before, part, after] = [now.slice(0, from), now.slice(from, to), now.slice(to)];
    const token = tokens[at(tokens.length - 1)] ?? '';
    const kind = at(6);
    if (kind === 0) now = before + after;
    else if (kind === 1) now = before + part + part + after;
    else if (kind === 2) now = before + part.slice(0, 40).repeat(at(60)) + after;
    else if (kind === 3) now = before + token.repeat(random() < 0.8 ? 1 : at(200)) + after;
    else if (kind === 4) now = before + token + after;
    else if (kind === 5) now = before + other.slice(at(other.length)).slice(0, 400) + after;
    else now = before;
    if (now.length > 40_000) now = now.slice(0, 40_000);
  }
  return now;
}

/** Random numbers from 0 up to 1 that a seed determines (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
