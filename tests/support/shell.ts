import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { dirname, join } from 'node:path';
import { paintFor } from '../../src/cli/io.js';
import { run } from '../../src/cli/program.js';
import type { ServiceOptions } from '../../src/service/boot.js';
import { recorder } from './recorder.js';
import { testService } from './service.js';

/** A shell in which commands are typed one after the other: a folder, a service, and what they print. */
export interface Shell {
  /** The folder that commands run in, which trees may be linked below. */
  folder: string;
  /** The data folder. */
  home: string;
  url: string;
  /** Files of the folder, by their paths. */
  write(files: Record<string, string | Uint8Array>): void;
  /** Types commands, a line each; `answer` is what is said to questions, `input` comes on standard input. */
  type(lines: string, more?: { answer?: string; input?: string }): Promise<void>;
  /** All that was typed and printed, with the exit codes; what differs from run to run has a name instead. */
  readonly text: string;
  stop(): Promise<void>;
}

/** The time that it is in every shell. */
export const now = '2026-06-01T12:00:00Z';

/** The name of the person who runs the tests, after a time, a count of rows or `by`. */
const person = userInfo().username.replace(/\W/g, '\\$&');
const whoDid = new RegExp(`(\\d {2}|rows? {2}|by )${person}(?![\\w-])`, 'g');

/** Opens a shell with a service of its own, or with one that runs. */
export async function openShell(
  options: Partial<ServiceOptions> = {},
  running?: { url: string; home: string },
): Promise<Shell> {
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-typed-'));
  const service = running
    ? { ...running, stop: () => Promise.resolve() }
    : await testService({ roots: [folder], now: () => new Date(now), ...options });
  let text = '';
  const named = (printed: string) =>
    printed
      .replaceAll(folder, '~/work')
      .replaceAll(service.home, '~/data')
      .replaceAll(service.url, 'http://127.0.0.1:PORT')
      .replaceAll(/127\.0\.0\.1:\d+/g, '127.0.0.1:PORT')
      // Whoever runs the tests, where what somebody did is told: `12:00  root`, `2 rows  root`, `by root:`.
      .replaceAll(whoDid, '$1SOMEBODY')
      // IDs that are made at random.
      .replaceAll(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, 'RANDOM')
      .replaceAll(/\b[0-9a-f]{32}\b/g, 'SNAPSHOT')
      .replaceAll(/\b(0{4}\d{4})-[0-9a-f]{8}\b/g, '$1-RANDOM')
      .replaceAll(/\bsxt-[\w-]{43}/g, 'TOKEN')
      // A tag's own random number.
      .replaceAll(/\?n=\d+/g, '?n=RANDOM');
  return {
    folder,
    home: service.home,
    url: service.url,
    write(files) {
      for (const [path, content] of Object.entries(files)) {
        mkdirSync(dirname(join(folder, path)), { recursive: true });
        writeFileSync(join(folder, path), content);
      }
    },
    async type(lines, { answer, input = '' } = {}) {
      for (const line of lines.split('\n').map((one) => one.trim())) {
        if (line === '') continue;
        const words = [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((match) => match[1] ?? match[2] ?? '');
        const io = recorder({
          ask: (question) => {
            if (answer === undefined) return Promise.resolve(null);
            io.text += `${question}${answer}\n`;
            return Promise.resolve(answer);
          },
          input: () => Promise.resolve(new TextEncoder().encode(input)),
          width: 100,
          columns: 100,
          cwd: folder,
          env: { SYNDEXA_HOME: service.home, SYNDEXA_URL: service.url },
        });
        const code = await run(words, io, paintFor(false));
        const ended = code === 0 ? '' : `(ended with ${code})\n`;
        text += `$ syndexa ${named(line)}\n${named(io.text)}${named(io.errors)}${ended}\n`;
      }
    },
    get text() {
      return text;
    },
    async stop() {
      await service.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
