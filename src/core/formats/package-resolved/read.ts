import { jsonValue, nodesAt, readJson } from '../json/read.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A Swift package at the version that was computed last. */
export interface ResolvedPackage extends Span {
  location: string;
  version: string;
}

/** Reads a `Package.resolved` of version 1, 2 or 3. */
export function readPackageResolved(text: string): { packages: ResolvedPackage[]; problems: ReadProblem[] } {
  const { root, problems } = readJson(text);
  const pins = [...nodesAt(root, ['pins', '*']), ...nodesAt(root, ['object', 'pins', '*'])];
  const packages = pins.flatMap((pin): ResolvedPackage[] => {
    const text = (way: string[]) => {
      const [node] = nodesAt(pin, way);
      const value = node && jsonValue(node);
      return typeof value === 'string' ? value : undefined;
    };
    const location = text(['location']) ?? text(['repositoryURL']);
    const version = text(['state', 'version']) ?? text(['state', 'branch']) ?? text(['state', 'revision']);
    return location === undefined
      ? []
      : [{ location, version: version ?? '', start: pin.offset, end: pin.offset + pin.length }];
  });
  return { packages, problems };
}
