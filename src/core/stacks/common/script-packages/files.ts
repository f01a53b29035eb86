import { lockFiles } from '../../../formats/package-json/locks.js';
import { documentFiles } from '../documents.js';
import type { CollectRule } from '../../stack.js';

/** The ends of names of source files that bundlers take. */
export const ends = ['ts', 'tsx', 'js', 'jsx'];

/** The files that any stack in JavaScript asks for. */
export const scriptFiles: readonly CollectRule[] = [
  { name: 'package.json' },
  { name: 'pnpm-workspace.yaml' },
  ...['tsconfig.json', 'tsconfig.base.json'].map((name) => ({ name })),
  ...Object.keys(lockFiles).map((name) => ({ name })),
  { name: 'placebook.ts' },
  // A file for one platform is before another one of its name, whatever it holds.
  ...['android', 'ios', 'native'].flatMap((platform) =>
    ends.map((end) => ({ suffix: `.${platform}.${end}` })),
  ),
  ...[...ends, 'mjs', 'cjs', 'mts', 'cts'].map((end) => ({ suffix: `.${end}`, needle: true })),
  ...documentFiles,
  ...['local', 'development', 'staging', 'production'].map((stage) => ({
    name: `.env.${stage}`,
    needle: true,
  })),
];
