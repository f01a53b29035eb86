import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { compiling } from '../support/compilers.js';
import { sdkTypes, unityTypes } from '../support/csharp-stubs.js';
import { DartFormat } from '../support/dart-format.js';
import { expoWorkspace } from '../support/planted/expo-workspace.js';
import { flutterWorkspace } from '../support/planted/flutter-workspace.js';
import { mauiSolution } from '../support/planted/maui-solution.js';
import type { PlantedTree } from '../support/planted/model.js';
import { unityGame } from '../support/planted/unity-game.js';
import { root, syntax } from '../support/trees.js';
import { asked, plan, text, written } from '../support/wiring.js';

// The planted projects after wiring, their IDs in code replaced by references: the code still compiles.

const { run, put } = compiling();

/** The files of a tree that wiring changed or made, and those that it left, by their ending. */
function wired(tree: PlantedTree, ending: RegExp) {
  const made = plan(tree.files, tree.title, asked({ callSites: true }));
  const files = Object.entries(written(tree.files, made)).filter(([path]) => ending.test(path));
  const touched = new Set(made.edits.map(({ path }) => path));
  expect(files.filter(([path]) => touched.has(path)).length).toBeGreaterThan(1);
  return Object.fromEntries(files.map(([path, content]) => [path, text(content)]));
}

describe('Dart', () => {
  let dart: DartFormat;
  beforeAll(async () => {
    dart = await DartFormat.start();
  });
  afterAll(() => dart.stop());

  it('is parsed by its formatter', async () => {
    for (const [path, content] of Object.entries(wired(flutterWorkspace, /\.dart$/)))
      await expect(dart.format(content).then(() => path)).resolves.toBe(path);
    await expect(dart.format('class A {')).rejects.toThrow();
  });
});

it('TypeScript compiles', () => {
  const files = wired(expoWorkspace, /\.tsx?$/);
  put({
    ...files,
    'types.d.ts': `declare const __DEV__: boolean;
declare const process: { env: { [name: string]: string | undefined } };
declare namespace JSX { interface Element {} interface IntrinsicElements {} }
declare module 'react' {
  namespace React { type ReactNode = unknown; type FC<P> = (props: P) => JSX.Element; }
  const React: { createElement(...args: unknown[]): JSX.Element };
  export default React;
  export function useEffect(work: () => void | (() => void), on: unknown[]): void;
  export function useRef<T>(from: T): { current: T };
}
declare module 'react-native' {
  import React from 'react';
  export const View: (props: object) => JSX.Element;
  export const Platform: { OS: string; select<T>(of: { [name: string]: T }): T | undefined };
  export const AppState: { addEventListener(name: string, work: (state: string) => void): { remove(): void } };
}
declare module '@cobaltheron.example/react-native' {
  class Ad { isReady: boolean; release(): void; show(): void;
    static load(unit: string, callbacks: { [name: string]: (reason?: string) => void }): Promise<Ad>; }
  export class HeronBanner extends Ad {}
  export class HeronInterstitial extends Ad {}
}
declare module '@brine/units' { export * from 'packages/units/index'; }
`,
  });
  const flags = '--noEmit --strict --jsx react --target es2020 --module commonjs --moduleResolution node10';
  const paths = Object.keys(files).filter((path) => path.startsWith('packages/') && !path.includes('/old/'));
  run(process.execPath, [
    join(root, 'node_modules/typescript/bin/tsc'),
    ...flags.split(' '),
    ...['--ignoreDeprecations', '5.0', '--baseUrl', '.', '--esModuleInterop', '--skipLibCheck'],
    'types.d.ts',
    ...paths,
  ]);
}, 60_000);

describe('C#', () => {
  it('of a game compiles for each platform and build', () => {
    const files = wired(unityGame, /\.cs$/);
    const game = Object.keys(files).filter((path) => /^Assets\/Game\/|Runtime\//.test(path));
    put({ ...files, 'Unity.cs': unityTypes, 'Sdks.cs': sdkTypes });
    for (const platform of ['UNITY_ANDROID', 'UNITY_IOS'])
      for (const build of ['', ';DEVELOPMENT_BUILD']) {
        const flags = ['-target:library', '-nowarn:0169,0414,0649', `-define:${platform}${build}`];
        run('mcs', [...flags, '-out:game.dll', 'Unity.cs', 'Sdks.cs', ...game]);
      }
  }, 60_000);

  it('of an application, whose language is newer than the compiler here, has a syntax tree without a fault', () => {
    for (const [path, content] of Object.entries(wired(mauiSolution, /\.cs$/)))
      expect([path, syntax.visit('c_sharp', content, (tree) => tree.hasError)]).toEqual([
        path,
        syntax.visit('c_sharp', mauiSolution.files[path] ?? '', (tree) => tree.hasError),
      ]);
  });
});
