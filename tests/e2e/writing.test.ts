import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { FileEdit } from '../../src/core/wiring/model.js';
import { recoverTree } from '../../src/service/trees/apply.js';
import { syndexa } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { androidFiles, filesBelow, root } from '../support/trees.js';

// A write may be cut short at any moment, by a kill or a full disk: the tree is old or new, never between.

const count = 120;
const before = (index: number) => `file ${index}\n${'-'.repeat(2_000)}\n`;
const hash = (text: string) => createHash('sha256').update(text).digest('hex');

let scripts: string;
let writer: string;
let tree: string;
let edits: string;

beforeAll(async () => {
  scripts = temporaryFolder();
  writer = join(scripts, 'writer.mjs');
  const source = `
    import { readFileSync } from 'node:fs';
    import { applyToTree } from ${JSON.stringify(join(root, 'src/service/trees/apply.ts'))};
    const [tree, edits] = process.argv.slice(2);
    process.stdout.write('ready');
    applyToTree(tree, JSON.parse(readFileSync(edits, 'utf8'))).then(
      () => process.exit(0),
      (error) => { process.stderr.write(String(error.code ?? error.message)); process.exit(7); },
    );`;
  await build({
    stdin: { contents: source, resolveDir: root, loader: 'ts' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile: writer,
    logLevel: 'error',
  });
});
afterAll(() => rmSync(scripts, { recursive: true, force: true }));

const plain = { source: null, remove: false, adds: [] };

beforeEach(() => {
  tree = temporaryFolder();
  const all: FileEdit[] = [];
  for (let index = 0; index < count; index++) {
    const path = `d${index % 7}/f${index}.txt`;
    mkdirSync(join(tree, path, '..'), { recursive: true });
    if (index % 4 === 0)
      all.push({
        path: `new/n${index}.txt`,
        rules: [],
        networks: [],
        platforms: [],
        before: null,
        edits: [],
        content: 'fresh\n',
        ...plain,
      });
    writeFileSync(join(tree, path), before(index));
    all.push({
      path,
      rules: [],
      networks: [],
      platforms: [],
      before: hash(before(index)),
      edits: [{ start: 0, end: 4, text: 'FILE' }],
      content: null,
      ...plain,
    });
  }
  edits = join(scripts, 'edits.json');
  writeFileSync(edits, JSON.stringify(all));
});
afterEach(() => rmSync(tree, { recursive: true, force: true }));

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

function start(
  command: string,
  args: string[],
): { ended: Promise<{ code: number | null; err: string }>; ready: Promise<void>; kill(): void } {
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  let err = '';
  child.stderr.setEncoding('utf8').on('data', (chunk: string) => (err += chunk));
  return {
    ended: new Promise((resolve) => child.on('close', (code) => resolve({ code, err }))),
    ready: new Promise((resolve) => child.stdout.once('data', () => resolve())),
    kill: () => void child.kill('SIGKILL'),
  };
}

/** Runs a write, killed after so many milliseconds unless that is null; returns how long it went on. */
async function run(killAfter: number | null): Promise<number> {
  const child = start(process.execPath, [writer, tree, edits]);
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

describe('a write that is cut short', () => {
  it('leaves the tree old or new, whenever it is killed', async () => {
    const outcomes: string[] = [];
    const whole = await run(null);
    expect(state()).toBe('new');
    takeBack();
    // Moments from the very beginning to about the end of a whole write, however quick this machine is.
    for (let moment = 0; moment < 14; moment++) {
      await run((whole * moment) / 13);
      const recovered = await recoverTree(tree);
      const now = state();
      outcomes.push(now);
      expect(['old', 'new']).toContain(now);
      if (recovered?.outcome === 'finished') expect(now).toBe('new');
      if (now === 'new') takeBack();
    }
    expect(outcomes[0]).toBe('old');
  });

  it('leaves the tree old when there is no room for the new contents', async () => {
    // A limit on the size of files stands in for a full disk: both make a write fail in the middle.
    const { ended } = start('bash', [
      '-c',
      `ulimit -f 1; exec ${process.execPath} ${writer} ${tree} ${edits}`,
    ]);
    const { code, err } = await ended;
    expect([code, err]).toEqual([7, 'EFBIG']);
    expect(state()).toBe('old');
    expect(readdirSync(tree).filter((name) => name.startsWith('.syndexa'))).toEqual([]);
  });

  it('is taken up by the next command, which says so', async () => {
    for (const [path, text] of Object.entries(androidFiles())) {
      mkdirSync(join(tree, path, '..'), { recursive: true });
      writeFileSync(join(tree, path), text);
    }
    const name = 'app/src/main/AndroidManifest.xml';
    const old = androidFiles()[name]!;
    const fresh = old.replace('@string/app_name', '@string/other');
    const staging = join(tree, '.syndexa-write');
    mkdirSync(staging);
    writeFileSync(join(staging, 'new-0'), fresh);
    writeFileSync(join(staging, 'old-0'), old);
    const journal = {
      pid: 2 ** 22 + 1,
      folders: [],
      files: [{ path: name, isNew: false, before: hash(old), after: hash(fresh) }],
    };
    writeFileSync(join(staging, 'journal.json'), JSON.stringify(journal));
    const home = temporaryFolder();
    const { code, err } = await syndexa(['survey', tree], home);
    expect([code, err]).toEqual([
      0,
      'An earlier write to this tree was cut short; it was finished (1 files).\n',
    ]);
    expect(filesBelow(tree)[name]?.toString()).toBe(fresh);
    expect(readdirSync(tree)).not.toContain('.syndexa-write');
    rmSync(home, { recursive: true });
  });
});
