import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { syndexa } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

// Without a service, a command reads its tree while the service starts in it, by what that wanted last time.

let home: string;
let tree: string;
beforeEach(() => {
  home = temporaryFolder();
  tree = join(home, 'tree');
  cpSync(join(root, 'demo', 'trees', 'plumebook'), tree, { recursive: true });
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

const planFile = () => join(home, 'collect-plan.json');

async function json(args: readonly string[], at = home): Promise<any> {
  const { code, out, err } = await syndexa([...args, '--json'], at);
  expect([code, err]).toEqual([0, '']);
  return JSON.parse(out);
}

/** What the tree says to a home that knows nothing of it. */
async function anew(): Promise<any> {
  const other = temporaryFolder();
  const survey = await json(['survey', tree], other);
  rmSync(other, { recursive: true });
  return survey;
}

describe('a command that reads its tree ahead', () => {
  it('says what the first said, and what was changed since', async () => {
    const first = await json(['survey', tree]);
    expect(existsSync(planFile())).toBe(true);
    expect(await json(['survey', tree])).toEqual(first);
    const file = join(tree, 'lib', 'main.dart');
    writeFileSync(file, `${readFileSync(file, 'utf8')}\nconst spare = 'CH-U-204418-QQQQ2222';\n`);
    const second = await json(['survey', tree]);
    const added = second.facts.filter(({ value }: any) => value === 'CH-U-204418-QQQQ2222');
    expect(added.map(({ platform }: any) => platform).sort()).toEqual(['android', 'ios']);
    expect(second).toEqual(await anew());
  });

  it.each([
    ['is no JSON', 'nothing'],
    ['is no plan', '{}'],
    ['is of another kind', '[1]'],
    [
      'asks for less',
      JSON.stringify({
        rules: [],
        folders: [],
        needles: [],
        skipFolders: [],
        skipBeside: [],
        maxFileBytes: 1,
      }),
    ],
  ])('believes no plan that %s', async (_, text) => {
    writeFileSync(planFile(), text);
    expect(await json(['survey', tree])).toEqual(await anew());
    expect(JSON.parse(readFileSync(planFile(), 'utf8')).rules.length).toBeGreaterThan(10);
  });

  it('sees what a network asks for that was added since', async () => {
    await json(['survey', tree]);
    const profile = readFileSync(join(root, 'profiles', 'marlstone.yaml'), 'utf8');
    const added = profile
      .replace(/^id: .*$/m, 'id: saltgrove')
      .replace(/^name: .*$/m, 'name: Saltgrove')
      .replaceAll('mrl1-', 'slg1-')
      .replaceAll('mrl-', 'slg-');
    mkdirSync(join(home, 'profiles'), { recursive: true });
    writeFileSync(join(home, 'profiles', 'saltgrove.yaml'), added);
    writeFileSync(join(tree, 'lib', 'spare.dart'), "const spare = 'slg-BANR-1234567';\n");
    const { facts } = await json(['survey', tree]);
    expect(
      facts.filter(({ network }: any) => network === 'saltgrove').map(({ value }: any) => value),
    ).toContain('slg-BANR-1234567');
  });

  it('reads a tree again after it wrote to it', async () => {
    const roster = join(root, 'demo', 'roster.yaml');
    expect((await syndexa(['roster', 'import', roster, '--yes'], home)).code).toBe(0);
    await json(['survey', tree]);
    expect((await syndexa(['wire', tree, '--title', 'plumebook', '--write'], home)).code).toBe(0);
    const { edits } = await json(['wire', tree, '--title', 'plumebook']);
    expect(edits).toEqual([]);
  });

  it('says of a folder that is not there what it said before', async () => {
    const gone = ['survey', join(home, 'gone')];
    const before = await syndexa(gone, home);
    await json(['survey', tree]);
    expect(await syndexa(gone, home)).toEqual(before);
    expect(before.code).toBe(2);
  });
});
