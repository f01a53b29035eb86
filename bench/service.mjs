// How the service answers beside a bare Express route that sends the same bytes, and while it works on trees.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express from 'express';
import { introduceService, line, median } from './measure.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
/** Networks with interstitials: three that ship, and two that are added. */
const added = ['brightwell', 'lowmarsh'];
const networks = ['cobalt-heron', 'marlstone', 'quincebury', ...added];
const agent = new Agent({ keepAlive: true, maxSockets: 8 });
const home = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));

function ask(url, method = 'GET', body, headers = {}) {
  return new Promise((resolve, reject) => {
    const payload = body === undefined ? undefined : JSON.stringify(body);
    const type = payload === undefined ? {} : { 'Content-Type': 'application/json' };
    const call = request(url, { method, agent, headers: { ...type, ...headers } }, (response) => {
      const chunks = [];
      response.on('data', (chunk) => chunks.push(chunk));
      response.on('end', () => resolve({ status: response.statusCode, bytes: Buffer.concat(chunks) }));
    });
    call.on('error', reject);
    call.end(payload);
  });
}

/** A roster document: some titles, each with so many placements on so many networks, a unit ID in each slot. */
function rosterOf(titles, placements, of, { name = 'title', first = 0 } = {}) {
  const lines = ['syndexa: 1', 'titles:'];
  let number = first;
  const id = () => `CH-U-204418-${(number++).toString(36).toUpperCase().padStart(8, '0')}`;
  for (let title = 0; title < titles; title++) {
    lines.push(`  ${name}-${title}:`, `    name: Title ${title}`);
    lines.push(
      `    editions: { android: { identifier: example.bench.${name}${title} }, ios: { identifier: example.bench.${name}${title} } }`,
      '    placements:',
    );
    for (let placement = 0; placement < placements; placement++) {
      lines.push(`      place-${placement}:`, '        format: interstitial', '        units:');
      for (const network of of)
        lines.push(
          network === 'cobalt-heron'
            ? `          ${network}: { android: { production: ${id()} }, ios: { production: ${id()} } }`
            : `          ${network}: {}`,
        );
    }
  }
  return lines.join('\n');
}

async function started() {
  const service = spawn(
    process.execPath,
    ['--expose-gc', join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0'],
    { env: { ...process.env, SYNDEXA_HOME: home }, stdio: ['ignore', 'pipe', 'ignore'] },
  );
  let out = '';
  for await (const chunk of service.stdout) {
    out += String(chunk);
    const url = /http:\/\/\S+/.exec(out)?.[0];
    if (url) return { service, url };
  }
  throw new Error(`The service ended: ${out}`);
}

/** Answers in a second, eight callers at once, over so many seconds. */
async function perSecond(url, seconds = 3) {
  const end = performance.now() + seconds * 1000;
  let count = 0;
  const caller = async () => {
    while (performance.now() < end) {
      const { status } = await ask(url);
      if (status !== 200) throw new Error(`${url} answered ${status}`);
      count += 1;
    }
  };
  await Promise.all(Array.from({ length: 8 }, caller));
  return count / seconds;
}

const { service, url } = await started();
try {
  introduceService();
  const take = async (document) => {
    const answer = await ask(`${url}/api/v1/roster/import`, 'POST', { document });
    if (answer.status !== 200) throw new Error(answer.bytes.toString().slice(0, 500));
  };
  const imported = performance.now();
  await take(rosterOf(100, 500, ['cobalt-heron']));
  line('an import of 100,000 IDs', `${((performance.now() - imported) / 1000).toFixed(1)} s (aim 5)`);
  const again = performance.now();
  await take(rosterOf(100, 500, ['cobalt-heron']));
  line('the same again', `${((performance.now() - again) / 1000).toFixed(1)} s (aim 2)`);
  const one = { network: 'cobalt-heron', platform: 'android', stage: 'production', placement: 'place-7' };
  const sets = [];
  for (let round = 0; round < 7; round++) {
    const from = performance.now();
    const body = { ...one, value: `CH-U-204418-ZZZZZZ0${round}` };
    await ask(`${url}/api/v1/titles/title-3/ids`, 'PUT', body, { 'If-Match': '*' });
    sets.push(performance.now() - from);
  }
  line('an ID set in it', `${median(sets).toFixed(0)} ms (aim 100)`);

  // The same bytes by a bare Express route, made from a value as the service has to.
  const app = express();
  const values = new Map();
  app.get('/:name', (incoming, response) => response.json(values.get(incoming.params.name)));
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const bare = `http://127.0.0.1:${server.address().port}`;
  const rounds = { title: [], titleBare: [], list: [], listBare: [] };
  for (const [name, path] of [
    ['title', '/titles/title-3'],
    ['list', '/titles'],
  ])
    values.set(name, JSON.parse((await ask(`${url}/api/v1${path}`)).bytes.toString()));
  for (let round = 0; round < 3; round++) {
    rounds.title.push(await perSecond(`${url}/api/v1/titles/title-3`));
    rounds.titleBare.push(await perSecond(`${bare}/title`));
    rounds.list.push(await perSecond(`${url}/api/v1/titles`));
    rounds.listBare.push(await perSecond(`${bare}/list`));
  }
  const ratio = (ours, theirs) => (median(ours) / median(theirs)).toFixed(2);
  line(
    'titles of 1,000 assignments, of what a bare Express route answers',
    `${ratio(rounds.title, rounds.titleBare)} (aim 0.5)`,
  );
  line('the list of titles, of what a bare route answers', ratio(rounds.list, rounds.listBare));

  for (const id of added) {
    const unit = { android: `${id.slice(0, 2)}-u-10000001`, ios: `${id.slice(0, 2)}-u-20000001` };
    const drafted = await ask(`${url}/api/v1/networks/draft`, 'POST', {
      id,
      name: id,
      formats: ['interstitial'],
      unit,
    });
    const { text } = JSON.parse(drafted.bytes.toString());
    const kept = await ask(`${url}/api/v1/networks`, 'POST', { text });
    if (kept.status !== 201) throw new Error(kept.bytes.toString().slice(0, 500));
  }
  await take(rosterOf(1, 300, networks, { name: 'wide', first: 1_000_000 }));
  const boards = [];
  for (let round = 0; round < 9; round++) {
    const from = performance.now();
    const { status } = await ask(`${url}/api/v1/titles/wide-0/board`);
    if (status !== 200) throw new Error(`The board answered ${status}.`);
    boards.push(performance.now() - from);
  }
  line('a board of 300 placements on 5 networks', `${median(boards).toFixed(0)} ms (aim 150)`);
  server.close();
  const metrics = (await ask(`${url}/metrics`)).bytes.toString();
  line(
    'memory after it',
    `${(Number(/syndexa_resident_bytes (\S+)/.exec(metrics)?.[1]) / 1024 / 1024).toFixed(0)} MB`,
  );
} finally {
  agent.destroy();
  service.kill('SIGTERM');
  await once(service, 'exit');
  rmSync(home, { recursive: true, force: true });
}
