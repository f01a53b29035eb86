import { cpSync, readFileSync, rmSync } from 'node:fs';
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

async function started(): Promise<{ service: TestService; snapshotOf: (name: string) => Promise<string> }> {
  const service = await testService({ home: temporaryFolder(), roots: [join(root, 'demo', 'trees')] });
  const text = readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8');
  const plan = await http(`${service.url}/api/v1/roster/import`, 'POST', { document: text });
  expect(plan.status).toBe(200);
  return {
    service,
    async snapshotOf(name) {
      const path = join(root, 'demo', 'trees', name);
      return (await http(`${service.url}/api/v1/folders`, 'POST', { path })).body.snapshot;
    },
  };
}

it.each([
  ['plumebook', 'plumebook'],
  ['tidewick', 'tidewick'],
])('%s says the same to one question as to many', async (tree, title) => {
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
  const { service, snapshotOf } = await started();
  const snapshot = await snapshotOf('plumebook');
  const survey = ask('survey', {});
  const before = (await survey(service, snapshot)) as { title: string | null };
  expect(before.title).toBe('plumebook');
  const titles = `${service.url}/api/v1/titles/plumebook`;
  const { headers } = await http(titles);
  expect((await http(titles, 'DELETE', undefined, { 'If-Match': String(headers.etag) })).status).toBeLessThan(
    300,
  );
  expect(await survey(service, snapshot)).toMatchObject({ title: null });
  const other = await snapshotOf('tidewick');
  expect(await survey(service, other)).toMatchObject({ title: 'tidewick' });
  await service.stop();
});
