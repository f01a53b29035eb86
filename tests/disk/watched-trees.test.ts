import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { WatchedTrees } from '../../src/disk/watched-trees.js';
import { temporaryFolder } from '../support/service.js';

let folder: string;
beforeEach(() => {
  folder = temporaryFolder();
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const plan = {
  rules: [{ name: 'Podfile' }],
  folders: [],
  needles: [],
  skipFolders: [],
  skipBeside: [],
  maxFileBytes: 1_000_000,
  maxFiles: 1_000,
  maxTreeBytes: 10_000_000,
};

it('follows no folder once it is closed, and waits for what is under way', async () => {
  const trees = new WatchedTrees();
  writeFileSync(join(folder, 'Podfile'), '');
  let seen = 0;
  let late: unknown;
  const told = new Promise<void>((resolve) => {
    trees.follow(folder, plan, async () => {
      seen += 1;
      resolve();
      // What a follower asks while the service stops is refused, and does not open the folder anew.
      await new Promise((done) => setTimeout(done, 50));
      late = await trees.current(folder, plan).catch((error: unknown) => error);
    });
  });
  expect((await trees.current(folder, plan)).files).toHaveLength(1);
  // It begins to follow a moment after the first question.
  const saving = setInterval(() => writeFileSync(join(folder, 'Podfile'), `# ${Math.random()}\n`), 100);
  await told;
  clearInterval(saving);
  await trees.close();
  expect(trees.closed).toBe(true);
  expect(seen).toBeGreaterThan(0);
  expect(late).toBeInstanceOf(Error);
  await expect(trees.current(folder, plan)).rejects.toThrow('stopping');
});

it('reads no further for a caller who went away, and reads everything for the next one', async () => {
  for (let at = 0; at < 3_000; at++) writeFileSync(join(folder, `Podfile${at}`), '');
  writeFileSync(join(folder, 'Podfile'), '');
  const trees = new WatchedTrees();
  const gone = new AbortController();
  const reading = trees.current(folder, plan, { signal: gone.signal });
  gone.abort(new Error('went away'));
  await expect(reading).rejects.toThrow('went away');
  expect((await trees.current(folder, plan)).files.map(({ path }) => path)).toContain('Podfile');
  await trees.close();
});

it('ends a reading that is under way when it is closed', async () => {
  writeFileSync(join(folder, 'Podfile'), '');
  const trees = new WatchedTrees();
  const reading = trees.current(folder, plan);
  const failed = expect(reading).rejects.toThrow('stopping');
  await trees.close();
  await failed;
});

it('goes on with a reading when the folder is followed for something else meanwhile', async () => {
  writeFileSync(join(folder, 'Podfile'), '');
  const trees = new WatchedTrees();
  const reading = trees.current(folder, plan);
  const other = trees.current(folder, { ...plan, maxFileBytes: plan.maxFileBytes + 1 });
  expect((await reading).files).toHaveLength(1);
  expect((await other).files).toHaveLength(1);
  await trees.close();
});
