import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { expoFiles, expoStages } from '../../support/expo.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { packageJson, reactNativeFiles, screen } from '../../support/react-native.js';
import { profiles, treeOf } from '../../support/trees.js';
import { asked, holds, text, unplan, written, type Files } from '../../support/wiring.js';

const title = kelpWithBanner();
const choice = "Platform.OS === 'ios' ? 'CH-U-310772-CCCC2222' : 'CH-U-310772-BBBB1111'";
const json = (value: object) => `${JSON.stringify(value, null, 2)}\n`;
const appWith = (version: string, changes: Record<string, string | null> = {}): Record<string, string> =>
  Object.fromEntries(
    Object.entries(
      reactNativeFiles({ 'package.json': packageJson(`    "@brine/ads": "${version}",\n`), ...changes }),
    ).map(([path, content]) => [`apps/kelp/${path}`, content]),
  );
const ads = (more: object = {}, folder = 'packages/ads') => ({
  [`${folder}/package.json`]: json({ name: '@brine/ads', ...more }),
  [`${folder}/index.tsx`]: screen(choice),
});
const npm = { 'package.json': json({ name: 'brine', workspaces: ['apps/*', 'packages/*'] }) };
const unitPaths = (files: Files) => {
  const { survey } = runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } });
  return [...new Set(survey.facts.flatMap(({ kind, place }) => (kind === 'unit-id' ? [place.path] : [])))];
};

describe('packages beside an application in JavaScript', () => {
  const pnpm = (content: string) => ({ 'pnpm-workspace.yaml': content });
  const members = 'packages:\n  - apps/*\n  - "packages/*"\n';

  it.each<[string, Record<string, string>]>([
    ['npm', { ...npm, ...appWith('*'), ...ads() }],
    ['npm, by a range that fits', { ...npm, ...appWith('^1.2.0'), ...ads({ version: '1.4.0' }) }],
    [
      'yarn, in an object',
      {
        'package.json': json({ workspaces: { packages: ['apps/**', './packages/*'] } }),
        ...appWith('workspace:^'),
        ...ads(),
      },
    ],
    ['bun, under another name', { ...npm, ...appWith('workspace:@brine/ads@*'), ...ads() }],
    ['pnpm', { ...pnpm(members), ...appWith('workspace:*'), ...ads() }],
    ['pnpm, by a path', { ...pnpm(members), ...appWith('workspace:../../packages/ads'), ...ads() }],
    ['a folder that is named', { ...appWith('file:../../packages/ads'), ...ads() }],
    ['a link', { ...appWith('link:../../packages/ads'), ...ads() }],
    ['a portal', { ...appWith('portal:../../packages/ads'), ...ads() }],
    [
      'another package',
      {
        ...npm,
        ...appWith('*', { 'package.json': packageJson('    "@brine/ui": "*",\n') }),
        'packages/ui/package.json': json({ name: '@brine/ui', dependencies: { '@brine/ads': '*' } }),
        ...ads(),
      },
    ],
    [
      'an alias',
      {
        ...appWith('*', {
          'package.json': packageJson(''),
          'tsconfig.json': '{ "compilerOptions": { "paths": { "@ads/*": ["../../packages/ads/*"] } } }',
        }),
        ...ads(),
      },
    ],
    [
      'an alias of a configuration that is extended',
      {
        ...appWith('*', {
          'package.json': packageJson(''),
          'tsconfig.json': '{ // shared\n "extends": "../../tsconfig.base" }',
        }),
        'tsconfig.base.json':
          '{ "compilerOptions": { "baseUrl": "packages", "paths": { "@ads": ["ads/index.tsx"], "@/*": ["../apps/kelp/src/*"] } } }',
        ...ads(),
      },
    ],
  ])('are part of it: %s', (_, files) => {
    expect(unitPaths(files)).toEqual(['packages/ads/index.tsx']);
  });

  it.each<[string, Record<string, string>]>([
    ['no workspace', { ...appWith('^1.0.0'), ...ads({ version: '1.0.0' }) }],
    ['another version', { ...npm, ...appWith('^2.0.0'), ...ads({ version: '1.4.0' }) }],
    ['an exact version', { ...npm, ...appWith('1.4.1'), ...ads({ version: '1.4.0' }) }],
    ['left out', { ...pnpm(`${members}  - '!packages/ads'\n`), ...appWith('workspace:*'), ...ads() }],
    ['outside of the workspace', { ...npm, ...appWith('*'), ...ads({}, 'examples/ads') }],
    [
      'pnpm that links none',
      {
        ...pnpm(`${members}linkWorkspacePackages: false\n`),
        ...appWith('^1.0.0'),
        ...ads({ version: '1.0.0' }),
      },
    ],
    ['another registry name', { ...npm, ...appWith('npm:@other/ads@1.0.0'), ...ads({ version: '1.0.0' }) }],
  ])('are none of it: %s', (_, files) => {
    expect(unitPaths(files)).toEqual([]);
  });
});

describe('the placebook of a workspace', () => {
  const wire = (files: Files) => {
    const { after, plan } = holds(files, title, asked({ callSites: true }));
    const added = plan.edits.flatMap((edit) => edit.adds);
    const out = written(after, unplan(after, title, 'cobalt-heron', added));
    expect(Object.keys(out).filter((path) => path.endsWith('placebook.ts'))).toEqual([]);
    return {
      after,
      books: Object.keys(after).filter((path) => path.endsWith('placebook.ts')),
      imports: (path: string) =>
        /import \{ Placebook, PlacebookNetwork \} from '(.*)';/.exec(text(after[path]))?.[1],
    };
  };

  it('is in the application where only that uses it', () => {
    const files = {
      ...npm,
      ...appWith('*', { 'src/Reef.tsx': screen(choice) }),
      ...ads(),
      'packages/ads/index.tsx': 'export const one = 1;\n',
    };
    const { books, imports } = wire(files);
    expect(books).toEqual(['apps/kelp/src/ads/placebook.ts']);
    expect(imports('apps/kelp/src/Reef.tsx')).toBe('./ads/placebook');
  });

  it('is in a package where only that uses it', () => {
    const { books, imports } = wire({ ...npm, ...appWith('*'), ...ads() });
    expect(books).toEqual(['packages/ads/ads/placebook.ts']);
    expect(imports('packages/ads/index.tsx')).toBe('./ads/placebook');
  });

  it('is in a package where the application uses it too, and imported by the name of that', () => {
    const files = { ...npm, ...appWith('*', { 'src/Reef.tsx': screen(choice) }), ...ads() };
    const { books, imports } = wire(files);
    expect(books).toEqual(['packages/ads/ads/placebook.ts']);
    expect(imports('apps/kelp/src/Reef.tsx')).toBe('@brine/ads/ads/placebook');
    expect(imports('packages/ads/index.tsx')).toBe('./ads/placebook');
  });

  it('leaves code alone that could not import it', () => {
    const closed = { ...ads({ exports: { '.': './index.tsx' } }) };
    const files = { ...npm, ...appWith('*', { 'src/Reef.tsx': screen(choice) }), ...closed };
    const { after, books, imports } = wire(files);
    expect(books).toEqual(['apps/kelp/src/ads/placebook.ts']);
    expect(imports('apps/kelp/src/Reef.tsx')).toBe('./ads/placebook');
    expect(text(after['packages/ads/index.tsx'])).toBe(closed['packages/ads/index.tsx']);
  });

  it('is found again in Expo projects, too', () => {
    const expo = kelpWithBanner({ stages: expoStages });
    const files = {
      ...npm,
      ...Object.fromEntries(
        Object.entries(expoFiles({})).map(([path, content]) => [
          `apps/kelp/${path}`,
          path === 'package.json'
            ? content.replace('"dependencies": {', '"dependencies": {\n    "@brine/ads": "*",')
            : content,
        ]),
      ),
      ...ads(),
    };
    const { after } = holds(files, expo, asked({ callSites: true }));
    expect(Object.keys(after).filter((path) => path.endsWith('placebook.ts'))).toEqual([
      'packages/ads/ads/placebook.ts',
    ]);
  });
});
