import { isMap, isScalar } from 'yaml';
import { parseYaml } from '../yaml/parse.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A package at the version that a `pubspec.lock` holds. */
export interface LockedPub extends Span {
  name: string;
  version: string;
}

const maxLength = 4_000_000;

/** Reads a `pubspec.lock`: what the last `pub get` computed. */
export function readPubspecLock(text: string): { packages: LockedPub[]; problems: ReadProblem[] } {
  const { document, problems: all } = parseYaml(text, maxLength);
  const problems = all.slice(0, 3);
  const root = document.contents;
  const packages = isMap(root) ? root.get('packages', true) : undefined;
  if (!isMap(packages)) return { packages: [], problems };
  return {
    packages: packages.items.flatMap(({ key, value }): LockedPub[] => {
      if (!isScalar(key) || !key.range || !isMap(value)) return [];
      const version = value.get('version', true);
      const end = isScalar(version) && version.range ? version.range[1] : key.range[1];
      const text = isScalar(version) ? String(version.value) : '';
      return [{ name: String(key.value), version: text, start: key.range[0], end }];
    }),
    problems,
  };
}
