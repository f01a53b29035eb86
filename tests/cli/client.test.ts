import express from 'express';
import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { afterEach, describe, expect, it } from 'vitest';
import { Client } from '../../src/cli/client.js';
import { register, type Handlers } from '../../src/service/route.js';
import type { Service } from '../../src/service/service.js';

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
