import type { ChildProcess } from 'node:child_process';

/**
 * The address that a service prints when it listens.
 * @throws Error when it ends before that
 */
export async function addressOf(service: ChildProcess): Promise<string> {
  let out = '';
  for await (const chunk of service.stdout ?? []) {
    out += String(chunk);
    const url = /http:\/\/\S+/.exec(out)?.[0];
    if (url) return url;
  }
  throw new Error(`The service ended: ${out}`);
}
