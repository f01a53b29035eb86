// The layers, from the lowest to the highest: a folder imports only from folders that stand before it. The README draws
// the same list.

/** Folders of the core. What stands in `src/core` itself runs them: surveying, planning, unwiring. */
const core = [
  'text',
  'words',
  'standards',
  'syntax',
  'languages',
  'formats',
  'tree',
  'facts',
  'edits',
  'network',
  'roster',
  'inventory',
  'provision',
  'tally',
  'placebook',
  'code',
  'stacks',
  'checks',
  'rehearsal',
  'wiring',
  'board',
  'steps',
  'portfolio',
  'id-trace',
  'search',
  'adopting',
  'drafting',
];
/** Folders of the whole, the core being the lowest. */
const layers = ['core', 'api', 'disk', 'worker', 'service', 'cli'];
/** What speaks to the rest by HTTP only: the shapes that cross it are all that it shares. */
const byHttp = ['partner', 'console'];

/** What is known of a stack without a tree. Profiles are made of it, so it is below them. */
const descriptions = ['^src/core/stacks/descriptions[.]ts$', '^src/core/stacks/.*description[.]ts$'];

const above = (list, index) => list.slice(index + 1).join('|');
const upward = (root, list) =>
  list.slice(0, -1).map((name, index) => ({
    name: `${name}-imports-downwards`,
    severity: 'error',
    from: { path: `^${root}${name}/` },
    to: { path: `^${root}(${above(list, index)})/`, pathNot: descriptions },
  }));

export default {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    ...upward('src/core/', core),
    ...upward('src/', layers),
    {
      name: 'descriptions-of-stacks-are-low',
      severity: 'error',
      from: { path: descriptions },
      to: { path: '^src/core/', pathNot: ['^src/core/(text|words|languages)/', ...descriptions] },
    },
    {
      name: 'no-stack-knows-another',
      severity: 'error',
      from: { path: '^src/core/stacks/([^/]+)/', pathNot: '^src/core/stacks/common/' },
      to: { path: '^src/core/stacks/[^/]+/', pathNot: '^src/core/stacks/($1|common)/' },
    },
    {
      name: 'what-stacks-share-knows-the-native-ones-alone',
      severity: 'error',
      from: { path: '^src/core/stacks/common/' },
      to: {
        path: '^src/core/stacks/[^/]+/',
        pathNot: ['^src/core/stacks/common/', '^src/core/stacks/(android|ios)/index[.]ts$'],
      },
    },
    {
      name: 'core-folders-leave-the-runners-alone',
      severity: 'error',
      from: { path: '^src/core/[^/]+/' },
      to: { path: '^src/core/[^/]+\\.ts$' },
    },
    {
      name: 'every-core-folder-has-its-place',
      severity: 'error',
      from: { path: '^src/core/[^/]+/', pathNot: `^src/core/(${core.join('|')})/` },
      to: {},
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        dependencyTypes: ['core'],
      },
    },
    {
      name: 'core-knows-no-interface',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        path: 'node_modules/(express|drizzle-orm|better-sqlite3|react|react-dom|react-bootstrap|react-router|commander|pino)/',
      },
    },
    {
      name: 'by-http-only',
      severity: 'error',
      from: { path: `^src/(${byHttp.join('|')})/` },
      to: { path: '^src/(disk|service|cli)/' },
    },
    {
      name: 'partner-and-console-are-nobodys-parts',
      severity: 'error',
      from: { pathNot: `^src/(${byHttp.join('|')})/` },
      to: { path: `^src/(${byHttp.join('|')})/` },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.json'] },
  },
};
