import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { root } from '../support/trees.js';

// What was surveyed last is at hand for the next question. Whatever is asked, in whatever order, the answers are
// those of a service that was asked nothing else.

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

type Question = (service: TestService, snapshot: string) => Promise<unknown>;

const ask =
  (call: string, body: object): Question =>
  async (service, snapshot) => {
    const answer = await http(`${service.url}/api/v1/snapshots/${snapshot}/${call}`, 'POST', body);
    expect(answer.status).toBe(200);
    const { id: _, ...told } = answer.body;
    return told;
  };

/** A service with the demo's record, which gives snapshots of folders below its roots. */
async function started(
  roots = [join(root, 'demo', 'trees')],
): Promise<{ service: TestService; snapshotOf: (path: string) => Promise<string> }> {
  const service = await testService({ home: temporaryFolder(), roots });
  const text = readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8');
  const plan = await http(`${service.url}/api/v1/roster/import`, 'POST', { document: text });
  expect(plan.status).toBe(200);
  return {
    service,
    async snapshotOf(path) {
      return (await http(`${service.url}/api/v1/folders`, 'POST', { path })).body.snapshot;
    },
  };
}

it.each([
  ['plumebook', 'plumebook'],
  ['tidewick', 'tidewick'],
])('%s says the same to one question as to many', async (name, title) => {
  const tree = join(root, 'demo', 'trees', name);
  const questions: Question[] = [
    ask('survey', {}),
    ask('check', {}),
    ask('wire', { title }),
    ask('wire', { title, choice: { networks: ['cobalt-heron'] } }),
    ask('unwire', { title, network: 'cobalt-heron', added: [] }),
    ask('survey', { title }),
    ask('check', { title }),
    ask('wire', {}),
  ];
  const many = await started();
  const snapshot = await many.snapshotOf(tree);
  const together: unknown[] = [];
  for (const question of questions) together.push(await question(many.service, snapshot));
  await many.service.stop();
  for (const [at, question] of questions.entries()) {
    const one = await started();
    expect(await question(one.service, await one.snapshotOf(tree))).toEqual(together[at]);
    await one.service.stop();
  }
});

it('sees what changed in the record, in the tree and among the networks', async () => {
  const tree = join(home, 'tree');
  cpSync(join(root, 'demo', 'trees', 'plumebook'), tree, { recursive: true });
  writeFileSync(join(tree, 'lib', 'spare.dart'), "const spare = 'slg-BANR-1234567'; // CH-U-\n");
  const { service, snapshotOf } = await started([home]);
  const survey = async (): Promise<{ title: string | null; facts: { network: string; value: string }[] }> =>
    (await ask('survey', {})(service, await snapshotOf(tree))) as never;
  const says = async (value: string) => (await survey()).facts.some((fact) => fact.value === value);
  expect((await survey()).title).toBe('plumebook');

  expect(await says('slg-BANR-1234567')).toBe(false);
  const marlstone = readFileSync(join(root, 'profiles', 'marlstone.yaml'), 'utf8');
  const text = marlstone
    .replace(/^id: .*$/m, 'id: saltgrove')
    .replace(/^name: .*$/m, 'name: Saltgrove')
    .replaceAll('mrl1-', 'slg1-')
    .replaceAll('mrl-', 'slg-');
  expect((await http(`${service.url}/api/v1/networks`, 'POST', { text })).status).toBe(201);
  expect(await says('slg-BANR-1234567')).toBe(true);

  expect(await says('CH-U-204418-QQQQ2222')).toBe(false);
  writeFileSync(join(tree, 'lib', 'more.dart'), "const more = 'CH-U-204418-QQQQ2222';\n");
  expect(await says('CH-U-204418-QQQQ2222')).toBe(true);

  const titles = `${service.url}/api/v1/titles/plumebook`;
  const { headers } = await http(titles);
  expect((await http(titles, 'DELETE', undefined, { 'If-Match': String(headers.etag) })).status).toBe(200);
  expect((await survey()).title).toBeNull();
  await service.stop();
});
