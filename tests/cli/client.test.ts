import express from 'express';
import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { afterEach, describe, expect, it } from 'vitest';
import { Client } from '../../src/cli/client.js';
import { exit } from '../../src/cli/io.js';
import { callFollowed } from '../../src/cli/progress.js';
import { register, type Handlers } from '../../src/service/route.js';
import type { Service } from '../../src/service/service.js';
import { recorder } from '../support/recorder.js';

const open: { client: Client; server: Server }[] = [];

async function serve(app: RequestListener, keepAlive: number): Promise<Client> {
  const server = createServer(app);
  server.keepAliveTimeout = keepAlive;
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const client = new Client(`http://127.0.0.1:${(server.address() as AddressInfo).port}`, 'test');
  open.push({ client, server });
  return client;
}

afterEach(() => {
  for (const { client, server } of open.splice(0)) {
    client.close();
    server.close();
  }
});

/** Keeps this process busy, as the reading of a very large tree does. */
function block(milliseconds: number): void {
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, milliseconds);
}

describe('calls that are far apart', () => {
  // In a thread of its own, so that it goes on while this one is busy.
  const healthy = `
    const { createServer } = require('node:http');
    const server = createServer((_, response) => {
      response.setHeader('Content-Type', 'application/json');
      response.end('{"files":[]}');
    });
    server.keepAliveTimeout = 2000;
    server.listen(0, '127.0.0.1', () => require('node:worker_threads').parentPort.postMessage(server.address().port));
  `;

  it('do not meet a connection that the other side closed meanwhile', async () => {
    const worker = new Worker(healthy, { eval: true });
    const port = await new Promise<number>((ready) => worker.once('message', ready));
    const client = new Client(`http://127.0.0.1:${port}`, 'test');
    await client.call('collectPlan');
    await nextTurn();
    block(3_500);
    await expect(client.call('collectPlan')).resolves.toEqual({ files: [] });
    client.close();
    await worker.terminate();
  });
});

describe('an answer that takes long', () => {
  const slow = (beatEvery: number) => {
    const handlers: Partial<Handlers> = {
      collectPlan: () => new Promise((answer) => setTimeout(() => answer({} as never), 400)),
    };
    const app = express();
    const router = express.Router();
    register(router, handlers, {} as Service, beatEvery);
    app.use('/api/v1', router);
    return app;
  };
  const informed = async (beatEvery: number) => {
    const { request } = await import('node:http');
    const client = await serve(slow(beatEvery), 5_000);
    const states: number[] = [];
    await new Promise<void>((done) => {
      const call = request(`${client.url}/api/v1/collect-plan`);
      call.on('information', ({ statusCode }) => states.push(statusCode));
      call.on('response', (response) => {
        states.push(response.statusCode ?? 0);
        response.resume().on('end', done);
      });
      call.end();
    });
    return states;
  };

  it('is announced again and again', async () => {
    const states = await informed(50);
    expect(states.at(-1)).toBe(200);
    expect(new Set(states.slice(0, -1))).toEqual(new Set([102]));
    expect(states.length).toBeGreaterThan(3);
  });

  it('is not announced when it comes soon', async () => {
    expect(await informed(5_000)).toEqual([200]);
  });
});

describe('an answer that is not what it should be', () => {
  const answering = (status: number, text: string, type = 'application/json') =>
    serve((_, response) => {
      response.writeHead(status, { 'Content-Type': type });
      response.end(text);
    }, 5_000);
  const event = (name: string, data: unknown) => `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;
  const refusal = {
    code: 'not-found',
    detail: 'There is no such snapshot.',
    fix: 'Send it again.',
    status: 404,
  };
  const call = { params: { snapshot: 'abc' }, body: { title: null } };

  it.each([
    [500, 'Bad Gateway', { message: 'The service answered 500: Bad Gateway', code: exit.unreachable }],
    [404, JSON.stringify(refusal), { message: refusal.detail, fix: refusal.fix, code: exit.wrongUse }],
  ])('is a failure with what is known of it (%s)', async (status, text, expected) => {
    const client = await answering(status, text);
    await expect(client.call('collectPlan')).rejects.toMatchObject(expected);
    await expect(client.text('check', call)).rejects.toMatchObject(expected);
    await expect(client.follow('survey', call, () => undefined)).rejects.toMatchObject(expected);
  });

  it('is nothing where a service says nothing', async () => {
    expect(await (await answering(200, '')).call('collectPlan')).toBeUndefined();
    expect(await (await answering(200, '<VAST/>')).text('check', call)).toBe('<VAST/>');
  });

  it('is a failure when it ends in the middle', async () => {
    const cut = await answering(
      200,
      event('progress', { doing: 'x', done: 1, total: 2 }),
      'text/event-stream',
    );
    await expect(cut.follow('survey', call, () => undefined)).rejects.toMatchObject({
      message: 'The service stopped in the middle of its answer.',
      code: exit.unreachable,
      fix: 'Run the command again.',
    });
    const broken = await serve((_, response) => {
      response.writeHead(200, { 'Content-Length': '100' });
      response.write('{');
      setTimeout(() => response.destroy(), 20);
    }, 5_000);
    await expect(broken.call('collectPlan')).rejects.toMatchObject({
      message: expect.stringMatching(/^The service at http:\/\/127\.0\.0\.1:\d+ cannot be reached: .+\.$/),
      code: exit.unreachable,
      fix: 'Start it with syndexa serve, or leave SYNDEXA_URL unset.',
    });
  });

  it('is followed with a line of progress, which goes when the answer is there', async () => {
    const client = await answering(
      200,
      [
        event('progress', { doing: 'reading', done: 0, total: 0 }),
        event('progress', { doing: 'reading', done: 1, total: 3 }),
        event('progress', { doing: 'reading', done: 3, total: 3 }),
        event('answer', { facts: [] }),
      ].join(''),
      'text/event-stream',
    );
    const lines: string[] = [];
    const io = recorder({ interactive: true, status: (line) => void lines.push(line) });
    expect(await callFollowed(io, client, 'survey', call, 'surveying')).toEqual({ facts: [] });
    expect(lines).toEqual([
      '… surveying',
      '… reading',
      `${'━'.repeat(8)}${'─'.repeat(16)} reading 1/3`,
      `${'━'.repeat(24)} reading 3/3`,
      '',
    ]);
  });

  it('says which fields are invalid, and the advice that fits them all once', async () => {
    const said = async (problem: object) =>
      (
        await answering(
          422,
          JSON.stringify({ code: 'invalid', detail: 'It is invalid.', fix: 'Look.', ...problem }),
        )
      )
        .call('collectPlan')
        .catch(({ message, fix, details }) => ({ message, fix, details }));
    const place = { line: 3, column: 7 };
    const name = { field: 'name', message: 'It is empty.', fix: 'Look.' };
    expect(await said({ errors: [name] })).toEqual({
      message: 'name: It is empty.',
      fix: 'Look.',
      details: [],
    });
    expect(await said({ errors: [{ field: '', message: 'It is empty.', place }] })).toMatchObject({
      message: 'document (line 3, column 7): It is empty.',
      fix: 'Look.',
    });
    expect(await said({ errors: [name, { ...name, field: 'id', fix: 'Shorten it.' }] })).toEqual({
      message: 'It is invalid.',
      fix: 'Look.',
      details: ['name: It is empty.', 'id: It is empty. Shorten it.'],
    });
    const change = {
      path: 'titles.kelp.cap',
      base: null,
      record: { count: 3 },
      document: 'x',
      conflict: true,
    };
    expect(await said({ changes: [change, { ...change, conflict: false }] })).toMatchObject({
      details: [
        '✕ titles.kelp.cap: was (nothing), record {"count":3}, document x (both changed it)',
        '  titles.kelp.cap: was (nothing), record {"count":3}, document x',
      ],
    });
  });
});
