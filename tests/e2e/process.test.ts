import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { syndexa, syndexaProcess, type CliResult } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

let homes: { inside: string; process: string };
beforeAll(() => {
  homes = { inside: temporaryFolder(), process: temporaryFolder() };
  for (const home of Object.values(homes)) {
    cpSync(join(root, 'demo/roster.yaml'), join(home, 'roster.yaml'));
    cpSync(join(root, 'demo/trees/tidewick'), join(home, 'tidewick'), { recursive: true });
  }
});
afterAll(() => {
  for (const home of Object.values(homes)) rmSync(home, { recursive: true, force: true });
});

/** A result without what no two runs have in common: times, IDs that are drawn, and the folder. */
function told({ code, out, err }: CliResult, home: string): CliResult {
  const plain = (text: string) =>
    text
      .replaceAll(home, 'HOME')
      .replace(/\d{4}-\d\d-\d\d[T ][\d:.]+Z?/g, 'TIME')
      .replace(/\b[\da-f]{32}\b|\b[\da-f]{8}-[\da-f-]{27}\b/g, 'ID');
  return { code, out: plain(out), err: plain(err) };
}

describe('bin/syndexa', () => {
  // One after another: each sees what those before it left in the record and in the tree.
  it.each([
    ['--version', 0],
    ['--help', 0],
    ['wire --help', 0],
    ['wires', 2],
    ['check absent', 2],
    ['roster import roster.yaml', 2],
    ['roster import roster.yaml --yes', 0],
    ['title list', 0],
    ['title show tidewick --json', 0],
    ['board tidewick', 0],
    ['check tidewick --title tidewick', 1],
    ['check tidewick --title tidewick --format sarif', 1],
    ['survey tidewick --json', 0],
    ['wire tidewick --title tidewick', 0],
    ['wire tidewick --title tidewick --write', 0],
    ['undo tidewick', 0],
    ['network list', 0],
    ['title show nobody --json', 2],
  ])('says to `%s` what the client says within this process, and ends with %i', async (command, code) => {
    const args = command.split(' ');
    const [inside, process] = await Promise.all([
      syndexa(args, homes.inside),
      syndexaProcess(args, homes.process),
    ]);
    expect(told(process, homes.process)).toEqual(told(inside, homes.inside));
    expect(process.code).toBe(code);
  });
});
