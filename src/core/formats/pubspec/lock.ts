import { isMap, isScalar, parseDocument } from 'yaml';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A package at the version that a `pubspec.lock` holds. */
export interface LockedPub extends Span {
  name: string;
  version: string;
}

/** Reads a `pubspec.lock`: what the last `pub get` worked out. */
export function readPubspecLock(text: string): { packages: LockedPub[]; problems: ReadProblem[] } {
  const document = parseDocument(text, { prettyErrors: false });
  const problems = document.errors
    .slice(0, 3)
    .map(({ message, pos }) => ({ message: message.split('\n')[0] ?? message, start: pos[0], end: pos[1] }));
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
