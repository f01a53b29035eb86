// How fast the simulated partner answers a request for an ad, beside a bare Express route that sends the same bytes.
import { spawn } from 'node:child_process';
import { Agent, request } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import express from 'express';
import { line, median } from './measure.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const rounds = 5;
const calls = 1_500;
const agent = new Agent({ keepAlive: true, maxSockets: 16 });

function ask(url, method, body) {
  return new Promise((resolve, reject) => {
    const headers = { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) };
    const call = request(url, { method, agent, headers }, (response) => {
      const chunks = [];
      response.on('data', (chunk) => chunks.push(chunk));
      response.on('end', () => resolve({ status: response.statusCode, bytes: Buffer.concat(chunks) }));
    });
    call.on('error', reject);
    call.end(body);
  });
}

/** Calls in a second, sixteen at a time. */
async function perSecond(url, body) {
  let left = calls;
  const from = performance.now();
  await Promise.all(
    Array.from({ length: 16 }, async () => {
      while (left-- > 0) {
        const { status } = await ask(url, 'POST', body);
        if (status !== 200) throw new Error(`${url} was answered with ${status}`);
      }
    }),
  );
  return (calls * 1000) / (performance.now() - from);
}

// Both servers are processes of their own, so that neither shares the time of the one that asks.
async function started(args) {
  const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit', 'ipc'] });
  const said = await new Promise((resolve) => child.stdout.once('data', resolve));
  return { child, ...JSON.parse(String(said)) };
}

if (process.argv[2] === 'bare') {
  const bytes = Buffer.from(process.argv[3] ?? '', 'base64');
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(express.json({ limit: '1mb' }));
  app.post('/', (_request, response) => response.type('json').send(bytes));
  const server = app.listen(0, '127.0.0.1', () =>
    process.stdout.write(`${JSON.stringify({ url: `http://127.0.0.1:${server.address().port}/` })}\n`),
  );
  process.once('disconnect', () => process.exit(0));
} else await measured();

async function measured() {
  const body = JSON.stringify({
    id: 'r',
    imp: [{ id: '1', tagid: 'CH-U-100001-BANNER0A', banner: { w: 320, h: 50 } }],
    app: { bundle: 'example.bench.title' },
    device: { os: 'android', ifa: 'phone' },
  });
  const partner = await started([join(root, 'dist', 'node', 'partner.cjs'), '--port', '0']);
  const ads = `${partner.url}/cobalt-heron/serve/openrtb`;
  const { bytes } = await ask(ads, 'POST', body);
  const bare = await started([fileURLToPath(import.meta.url), 'bare', bytes.toString('base64')]);
  const ratios = [];
  for (let round = 0; round <= rounds; round++) {
    const one = await perSecond(bare.url, body);
    const other = await perSecond(ads, body);
    // The first round warms both up.
    if (round > 0) ratios.push(other / one);
  }
  for (const { child } of [partner, bare]) child.kill();
  agent.destroy();
  const ratio = median(ratios);
  line(
    'ads in a second, beside a bare Express route with the same bytes',
    `${ratio.toFixed(2)} times (at least 0.5) ${ratio >= 0.5 ? '✔' : '✘'}`,
  );
}
