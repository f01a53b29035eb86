import { isMap, isScalar, isSeq } from 'yaml';
import { parseYaml } from '../yaml/parse.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** An installed pod in `Podfile.lock`. */
export interface LockedPod extends Span {
  name: string;
  version: string;
}

const maxLength = 4_000_000;

/** Reads a `Podfile.lock`: the pods that were installed, and those that the Podfile declared then. */
export function readPodfileLock(text: string): {
  pods: LockedPod[];
  /** Names with the requirement that stood in the Podfile. */
  asked: ReadonlyMap<string, string>;
  problems: ReadProblem[];
} {
  const { document, problems: all } = parseYaml(text, maxLength);
  const problems = all.slice(0, 3);
  const root = document.contents;
  if (!isMap(root)) return { pods: [], asked: new Map(), problems };
  const items = (key: string) => {
    const list = root.get(key, true);
    return isSeq(list) ? list.items : [];
  };
  const pods = items('PODS').flatMap((item): LockedPod[] => {
    const scalar = isMap(item) ? item.items[0]?.key : item;
    if (!isScalar(scalar) || typeof scalar.value !== 'string') return [];
    const match = /^(\S+) \(([^)]*)\)$/.exec(scalar.value);
    const [start = 0, end = 0] = scalar.range ?? [];
    return match ? [{ name: match[1] ?? '', version: match[2] ?? '', start, end }] : [];
  });
  const asked = new Map(
    items('DEPENDENCIES').flatMap((item) => {
      if (!isScalar(item) || typeof item.value !== 'string') return [];
      const match = /^(\S+)(?: \(([^)]*)\))?$/.exec(item.value);
      return match ? [[match[1] ?? '', match[2] ?? ''] as const] : [];
    }),
  );
  return { pods, asked, problems };
}
