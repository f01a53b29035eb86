import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { request } from 'node:http';
import { SecretHosts } from '../../src/disk/home/secret-hosts.js';
import { startService, type RunningService, type ServiceOptions } from '../../src/service/boot.js';

export interface TestService extends RunningService {
  home: string;
  stop(): Promise<void>;
}

export function temporaryFolder(): string {
  return mkdtempSync(join(tmpdir(), 'syndexa-test-'));
}

/** A service of its own, on a port of its own, with an empty record. */
export async function testService(options: Partial<ServiceOptions> = {}): Promise<TestService> {
  const home = options.home ?? temporaryFolder();
  const service = await startService({ home, port: 0, version: '0.0.0-test', ...options });
  return {
    ...service,
    home,
    async stop() {
      await service.close();
      rmSync(home, { recursive: true, force: true });
    },
  };
}

/** Approves the host of an address for a secret, as its owner does. */
export function approve(home: string, secret: string, address: string): void {
  const { hostname, port } = new URL(address);
  new SecretHosts(home).allow({ secret, host: hostname, port: Number(port) });
}

export interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: any;
  text: string;
}

/** A bare HTTP request, every header as given: what a client that means harm could send. */
export function http(
  url: string,
  method = 'GET',
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const payload = body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body);
  return new Promise((resolve, reject) => {
    const call = request(
      url,
      { method, headers: { ...(payload ? { 'Content-Type': 'application/json' } : {}), ...headers } },
      (response) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => {
          const text = Buffer.concat(chunks).toString('utf8');
          let parsed: unknown = null;
          try {
            parsed = JSON.parse(text);
          } catch {
            // Not every answer is JSON.
          }
          resolve({ status: response.statusCode ?? 0, headers: response.headers, body: parsed, text });
        });
      },
    );
    call.on('error', reject);
    call.end(payload);
  });
}

/** Names the publisher, whoever was named before. */
export async function putPublisher(url: string, publisher: unknown): Promise<Answer> {
  const { etag } = (await http(url)).headers;
  const named = typeof etag === 'string' && etag.startsWith('"v');
  return http(url, 'PUT', publisher, named ? { 'If-Match': etag } : { 'If-None-Match': '*' });
}

/** Sends a tree as the client does; returns its snapshot. */
export async function snapshotOf(url: string, name: string, files: Record<string, string>): Promise<string> {
  const contents = Object.entries(files).map(([path, text]) => {
    const bytes = Buffer.from(text);
    return { path, bytes, hash: createHash('sha256').update(bytes).digest('hex') };
  });
  const { body } = await http(`${url}/api/v1/snapshots`, 'POST', {
    name,
    files: contents.map(({ path, bytes, hash }) => ({ path, hash, size: bytes.length })),
    folders: [],
    skipped: [],
  });
  await http(`${url}/api/v1/blobs`, 'POST', {
    blobs: contents.map(({ bytes, hash }) => ({ hash, base64: bytes.toString('base64') })),
  });
  return body.id;
}
