import * as all from './all.js';

/** What people read first of a build; kinds that are not here follow, in the order of their names. */
const first: readonly string[] = [
  'identifier',
  'min-sdk',
  'compile-sdk',
  'target-sdk',
  'deployment-target',
  'app-id',
  'unit-id',
  'permission',
  'dependency',
  'plist-key',
  'attribution-id',
  'companion',
  'repository',
];

const rank = ({ kind }: { kind: string }) => (first.includes(kind) ? first.indexOf(kind) : first.length);

/** Every kind of fact, in the order in which people read them. */
export const factDefinitions = Object.values(all).sort(
  (a, b) => rank(a) - rank(b) || (a.kind < b.kind ? -1 : 1),
);
