import { isMap, isScalar, isSeq, type Pair, type Scalar, type YAMLMap } from 'yaml';
import { parseYaml } from '../yaml/parse.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A package that a `pubspec.yaml` asks for; the span goes from its name to the end of what is asked. */
export interface PubDependency extends Span {
  name: string;
  section: 'dependencies' | 'dev_dependencies' | 'dependency_overrides';
  /** The version range; empty for any, null where it comes from elsewhere (`sdk`, `path`, `git`). */
  version: string | null;
  /** The range in the file of the version requirement; undefined if there is none. */
  versionSpan: Span | null;
  /** Where it comes from: `hosted`, `sdk`, `path`, `git`. */
  from: string;
  /** The folder that it comes from, as written, where that is one beside the project. */
  folder?: string;
}

/** What a `pubspec.yaml` says, as far as builds are concerned. */
export interface Pubspec {
  name: string | undefined;
  /** The range of Dart SDKs, with where it is. */
  sdk: (Span & { range: string }) | undefined;
  dependencies: PubDependency[];
  /**
   * The files and folders (with a `/` at the end) that it packs, and the flavours that they are for when it names any.
   */
  assets: { path: string; flavours?: string[] }[];
  /** The folders of the packages of its workspace, as written; a pattern may name several. */
  workspace: string[];
  /** Whether it is resolved with the workspace that it is in. */
  inWorkspace: boolean;
  /** Whether it describes a plugin: a package with native halves, and no application. */
  isPlugin: boolean;
  /** The block of its dependencies: none when there is no such key, empty when nothing is below it. */
  block: { keyEnd: number; entriesEnd: number | null; indent: string } | undefined;
  problems: ReadProblem[];
}

const sections = ['dependencies', 'dev_dependencies', 'dependency_overrides'] as const;
const maxLength = 2_000_000;

/** Reads a `pubspec.yaml` (dart.dev, "The pubspec file"). What is no YAML becomes a problem. */
export function readPubspec(text: string): Pubspec {
  const empty = {
    name: undefined,
    sdk: undefined,
    dependencies: [],
    assets: [],
    workspace: [],
    inWorkspace: false,
    isPlugin: false,
    block: undefined,
  };
  const { document, problems: all } = parseYaml(text, maxLength);
  const problems = all.slice(0, 3);
  const root = document.contents;
  if (!isMap(root)) return { ...empty, problems };
  const name = root.get('name');
  const environment = root.get('environment', true);
  const sdk = isMap(environment) ? environment.get('sdk', true) : undefined;
  const flutter = root.get('flutter', true);
  const resolution = root.get('resolution', true);
  return {
    name: typeof name === 'string' ? name : undefined,
    sdk:
      isScalar(sdk) && sdk.range && plain(sdk) !== ''
        ? { range: plain(sdk), start: sdk.range[0], end: sdk.range[1] }
        : undefined,
    dependencies: sections.flatMap((section) => dependenciesOf(root, section)),
    assets: isMap(flutter) ? assetsOf(flutter) : [],
    workspace: textsOf(root.get('workspace', true)),
    inWorkspace: isScalar(resolution) && plain(resolution) === 'workspace',
    isPlugin: isMap(flutter) && flutter.has('plugin'),
    block: blockOf(text, root),
    problems,
  };
}

/** `assets:` of the section `flutter` (docs.flutter.dev, "Flutter pubspec options"). */
function assetsOf(flutter: YAMLMap): Pubspec['assets'] {
  const list = flutter.get('assets', true);
  if (!isSeq(list)) return [];
  return list.items.flatMap((item): Pubspec['assets'] => {
    if (isScalar(item)) return [{ path: plain(item) }];
    const path = isMap(item) ? item.get('path') : undefined;
    if (!isMap(item) || typeof path !== 'string') return [];
    const flavours = item.get('flavors', true);
    const named = isSeq(flavours) ? flavours.items.flatMap((one) => (isScalar(one) ? [plain(one)] : [])) : [];
    return [{ path, ...(named.length > 0 ? { flavours: named } : {}) }];
  });
}

function dependenciesOf(root: YAMLMap, section: PubDependency['section']): PubDependency[] {
  const block = root.get(section, true);
  if (!isMap(block)) return [];
  return block.items.flatMap((pair): PubDependency[] => {
    const { key, value } = pair;
    if (!isScalar(key) || !key.range) return [];
    const name = String(key.value);
    const start = key.range[0];
    if (isMap(value)) {
      const from = ['sdk', 'path', 'git', 'hosted'].find((kind) => value.has(kind)) ?? 'hosted';
      const version = value.get('version', true);
      const asked = isScalar(version) && version.range ? version : undefined;
      const folder = value.get('path');
      const own = from === 'hosted' ? (asked ? plain(asked) : '') : null;
      const versionSpan = asked?.range ? { start: asked.range[0], end: asked.range[1] } : null;
      const end = value.range?.[1] ?? key.range[1];
      const beside = from === 'path' && typeof folder === 'string' ? { folder } : {};
      return [{ name, section, version: own, versionSpan, from, ...beside, start, end }];
    }
    if (value !== null && value !== undefined && !isScalar(value)) return [];
    const range = isScalar(value) && value.value !== null ? value.range : undefined;
    const version = isScalar(value) ? plain(value) : '';
    const versionSpan = range ? { start: range[0], end: range[1] } : null;
    return [
      {
        name,
        section,
        version: version === 'any' ? '' : version,
        versionSpan,
        from: 'hosted',
        start,
        end: range?.[1] ?? key.range[1] + 1,
      },
    ];
  });
}

/** The texts of a list. */
function textsOf(list: unknown): string[] {
  return isSeq(list) ? list.items.flatMap((item) => (isScalar(item) ? [plain(item)] : [])) : [];
}

/** A value of one word or number, as text. */
function plain({ value }: Scalar): string {
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

function blockOf(text: string, root: YAMLMap): Pubspec['block'] {
  const pair = root.items.find(
    (item): item is Pair => isScalar(item.key) && item.key.value === 'dependencies',
  );
  const key = pair && isScalar(pair.key) ? pair.key.range : undefined;
  if (!pair || !key) return undefined;
  const keyEnd = key[1] + 1;
  const { value } = pair;
  if (!isMap(value) || value.flow === true || !value.range || value.items.length === 0)
    return isMap(value) && value.flow === true ? undefined : { keyEnd, entriesEnd: null, indent: '  ' };
  const entriesEnd = text.slice(0, value.range[1]).trimEnd().length;
  const first = value.items[0]?.key;
  const at = isScalar(first) ? (first.range?.[0] ?? 0) : 0;
  const indent = /[ \t]*$/.exec(text.slice(0, at))?.[0] ?? '  ';
  return { keyEnd, entriesEnd, indent };
}
