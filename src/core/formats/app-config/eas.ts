import { nodesAt, readJson } from '../json/read.js';
import type { Node } from 'jsonc-parser';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A variable that a build profile sets. */
export interface EasVariable extends Span {
  value: string;
}

/** A build profile of an `eas.json`, with what it inherits. */
export interface EasProfile extends Span {
  name: string;
  /** Whether the build holds the client for developing, and so bundles that are made for developing. */
  development: boolean;
  /** Whether it also takes variables that are kept with the build service, where no reading sees them. */
  hasRemoteVariables: boolean;
  env: ReadonlyMap<string, EasVariable>;
  /** The profiles that it takes over from, the nearest first. */
  parents: string[];
  /** The variables that it sets itself, whatever it takes over. */
  ownVariables: string[];
  /** The object of its own variables, brackets included; undefined where it has none of its own. */
  ownEnv: Span | undefined;
  /** The object of the profile itself. */
  block: Span;
}

export interface EasJson {
  profiles: EasProfile[];
  problems: ReadProblem[];
}

const maxParents = 10;

/** Reads an `eas.json` (docs.expo.dev, "Configure EAS Build with eas.json"). */
export function readEas(text: string): EasJson {
  const { root, problems } = readJson(text);
  const [build] = nodesAt(root, ['build']);
  const blocks = new Map<string, Node>();
  for (const property of build?.type === 'object' ? (build.children ?? []) : []) {
    const [key, value] = property.children ?? [];
    if (key && value?.type === 'object') blocks.set(String(key.value), value);
  }
  const parents = new Set([...blocks.values()].flatMap((block) => textAt(block, ['extends']) ?? []));
  const profiles = [...blocks].flatMap(([name, block]): EasProfile[] => {
    // What is named as a base and only taken over by others is built by nobody.
    if (parents.has(name) && name.startsWith('base')) return [];
    const names = lineage(blocks, name);
    const line = names.flatMap((each) => blocks.get(each) ?? []);
    const [own] = nodesAt(block, ['env']);
    const env = new Map<string, EasVariable>();
    for (const ancestor of [...line].reverse())
      for (const property of nodesAt(ancestor, ['env'])[0]?.children ?? []) {
        const [key, value] = property.children ?? [];
        if (key && typeof value?.value === 'string')
          env.set(String(key.value), { value: value.value, ...spanOf(property) });
      }
    const first = (way: string[]) =>
      line.map((one) => nodesAt(one, way)[0]?.value as unknown).find((value) => value !== undefined);
    const debug = [first(['android', 'gradleCommand']), first(['ios', 'buildConfiguration'])].some(
      (value) => typeof value === 'string' && /debug/i.test(value),
    );
    return [
      {
        name,
        development: first(['developmentClient']) === true || debug,
        hasRemoteVariables: first(['environment']) !== undefined,
        env,
        parents: names.slice(1),
        ownVariables: (own?.children ?? []).map(({ children }) => String(children?.[0]?.value)),
        ownEnv: own?.type === 'object' ? spanOf(own) : undefined,
        block: spanOf(block),
        ...spanOf(block.parent ?? block),
      },
    ];
  });
  return { profiles, problems };
}

/** A profile with those that it takes over from, itself first. */
function lineage(blocks: ReadonlyMap<string, Node>, name: string): string[] {
  const found: string[] = [];
  let at: string | undefined = name;
  for (let depth = 0; depth < maxParents && at !== undefined; depth++) {
    const block: Node | undefined = blocks.get(at);
    if (!block || found.includes(at)) break;
    found.push(at);
    at = textAt(block, ['extends']);
  }
  return found;
}

function textAt(node: Node, way: string[]): string | undefined {
  const value = nodesAt(node, way)[0]?.value as unknown;
  return typeof value === 'string' ? value : undefined;
}

function spanOf({ offset, length }: Node): Span {
  return { start: offset, end: offset + length };
}
