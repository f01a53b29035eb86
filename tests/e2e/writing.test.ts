import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { TreeWrites } from '../../src/disk/writes/tree-writes.js';
import { syndexa } from '../support/cli.js';
import { editOf } from '../support/edits.js';
import { temporaryFolder } from '../support/service.js';
import { rounds } from '../support/torture.js';
import { buildTreeWriter, startWriter } from '../support/tree-writer.js';
import { androidFiles, filesBelow } from '../support/trees.js';

// A write may be interrupted at any moment, by a kill or a full disk: the tree is old or new, never between.

const count = 120;
const before = (index: number) => `file ${index}\n${'-'.repeat(2_000)}\n`;

let scripts: string;
let writer: string;
let tree: string;
let home: string;
let edits: string;

beforeAll(async () => {
  scripts = temporaryFolder();
  writer = await buildTreeWriter(scripts);
});
afterAll(() => rmSync(scripts, { recursive: true, force: true }));

beforeEach(() => {
  tree = temporaryFolder();
  home = temporaryFolder();
  const all = [];
  for (let index = 0; index < count; index++) {
    const path = `d${index % 7}/f${index}.txt`;
    mkdirSync(join(tree, path, '..'), { recursive: true });
    if (index % 4 === 0) all.push(editOf(`new/n${index}.txt`, null, 'fresh\n'));
    writeFileSync(join(tree, path), before(index));
    all.push({ ...editOf(path, before(index), ''), edits: [{ start: 0, end: 4, text: 'FILE' }] });
  }
  edits = join(scripts, 'edits.json');
  writeFileSync(edits, JSON.stringify(all));
});
afterEach(() => {
  rmSync(tree, { recursive: true, force: true });
  rmSync(home, { recursive: true, force: true });
});

/** Old, new, or the first file that is neither. */
function state(): string {
  const files = filesBelow(tree);
  const names = Object.keys(files);
  const isOld = names.every(
    (name) => name.startsWith('d') && files[name]!.toString() === before(Number(/f(\d+)/.exec(name)?.[1])),
  );
  if (isOld && names.length === count) return 'old';
  const isNew = names.every((name) =>
    name.startsWith('new/')
      ? files[name]!.toString() === 'fresh\n'
      : files[name]!.toString() === before(Number(/f(\d+)/.exec(name)?.[1])).replace('file', 'FILE'),
  );
  if (isNew && names.length === count + count / 4) return 'new';
  return `neither: ${names.length} files, ${names.filter((name) => name.startsWith('.')).join(' ')}`;
}

/** Runs a write, killed after so many milliseconds unless that is null; returns how long it went on. */
async function run(killAfter: number | null): Promise<number> {
  const child = startWriter(process.execPath, [writer, tree, edits, home]);
  await child.ready;
  const from = performance.now();
  if (killAfter !== null) {
    await new Promise((resolve) => setTimeout(resolve, killAfter));
    child.kill();
  }
  await child.ended;
  return performance.now() - from;
}

/** Makes a tree that was written old again. */
function takeBack(): void {
  rmSync(join(tree, 'new'), { recursive: true, force: true });
  for (const [name, content] of Object.entries(filesBelow(tree)))
    writeFileSync(join(tree, name), content.toString().replace('FILE', 'file'));
}

/** Kills a write when it has put so many files in place. */
const killAt = (done: number) =>
  startWriter(process.execPath, [writer, tree, edits, home, String(done)]).ended;

describe('a write that is interrupted', () => {
  it('leaves the tree old or new, whenever it is killed', async () => {
    const outcomes: string[] = [];
    const whole = await run(null);
    expect(state()).toBe('new');
    takeBack();
    // Moments from the very beginning to about the end of a whole write, however fast this machine is.
    const moments = rounds(14, 200);
    for (let moment = 0; moment < moments; moment++) {
      await run((whole * moment) / (moments - 1));
      const settled = await new TreeWrites(home).settle(tree);
      const now = state();
      outcomes.push(now);
      expect(['old', 'new']).toContain(now);
      expect(settled?.leftAlone ?? []).toEqual([]);
      if (settled) expect(now).toBe(settled.outcome === 'finished' ? 'new' : 'old');
      if (now === 'new') takeBack();
    }
    expect(outcomes[0]).toBe('old');
  });

  it('is taken back by undo, every byte', async () => {
    for (const done of [0, 1, 75, 149]) {
      await killAt(done);
      expect(readdirSync(tree).some((name) => name.startsWith('.syndexa-write-'))).toBe(true);
      const undone = await new TreeWrites(home).undo(tree);
      expect(undone?.what).toBe('wire');
      expect(state()).toBe('old');
    }
    expect(await new TreeWrites(home).list(tree)).toEqual([]);
  });

  it('is settled before the next write, which then comes about whole', async () => {
    await killAt(75);
    expect(await run(null)).toBeGreaterThan(0);
    expect(state()).toBe('new');
    expect(await new TreeWrites(home).undo(tree)).toBeDefined();
    expect(state()).toBe('old');
  });

  it('leaves alone what somebody changed since, and keeps what was there before', async () => {
    await killAt(120);
    const isWritten = ([name, bytes]: [string, Buffer]) =>
      /^d\d\/f/.test(name) && bytes.toString().startsWith('FILE');
    const path = Object.entries(filesBelow(tree)).find(isWritten)![0];
    writeFileSync(join(tree, path), 'mine');
    const settled = await new TreeWrites(home).settle(tree);
    expect(settled).toMatchObject({ outcome: 'taken back', leftAlone: [path] });
    expect(filesBelow(tree)[path]?.toString()).toBe('mine');
    const kept = Object.values(filesBelow(settled!.kept!)).map((bytes) => bytes.toString());
    expect(kept).toContain(before(Number(/f(\d+)/.exec(path)?.[1])));
    writeFileSync(join(tree, path), before(Number(/f(\d+)/.exec(path)?.[1])));
    expect(state()).toBe('old');
  });

  it('leaves the tree old when there is no room for the new contents', async () => {
    // A limit on the size of files stands in for a full disk: both make a write fail in the middle.
    const limited = `ulimit -f 1; exec ${process.execPath} ${writer} ${tree} ${edits} ${home}`;
    const { code, err } = await startWriter('bash', ['-c', limited]).ended;
    expect([code, err]).toEqual([7, 'EFBIG']);
    expect(state()).toBe('old');
    expect(readdirSync(tree).filter((name) => name.startsWith('.syndexa'))).toEqual([]);
  });

  it('is reported by commands that read, which change nothing', async () => {
    for (const [path, text] of Object.entries(androidFiles())) {
      mkdirSync(join(tree, path, '..'), { recursive: true });
      writeFileSync(join(tree, path), text);
    }
    await killAt(75);
    const now = filesBelow(tree);
    for (const command of ['survey', 'check', 'wire']) {
      const title = command === 'wire' ? ['--title', 'kelp'] : [];
      const { err } = await syndexa([command, tree, ...title], home);
      expect(err).toContain(`▲ A write to ${tree} was interrupted (wire, kelp, 2026-11-02T09:00:00.000Z)`);
      expect(err).toContain(`Take it back with: syndexa undo ${tree}`);
      expect(filesBelow(tree)).toEqual(now);
    }
    const { code, out } = await syndexa(['undo', tree], home);
    expect([code, out.includes('wire')]).toEqual([0, true]);
    const after = await syndexa(['survey', tree], home);
    expect([after.code, after.err]).toEqual([0, '']);
    expect(readdirSync(tree).filter((name) => name.startsWith('.syndexa'))).toEqual([]);
  });

  it('of another data folder is reported, and ignored', async () => {
    await killAt(75);
    const other = temporaryFolder();
    const now = filesBelow(tree);
    const { err } = await syndexa(['survey', tree], other);
    expect(err).toMatch(
      /^▲ \.syndexa-write-[0-9a-f]{32} \(file\) marks a write that this data folder does not know/,
    );
    expect(filesBelow(tree)).toEqual(now);
    rmSync(other, { recursive: true });
  });
});
