import {
  chmodSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { exit } from '../../src/cli/io.js';
import { writeNamed } from '../../src/cli/write-file.js';
import { recorder } from '../support/recorder.js';

let folder: string;
beforeEach(() => void (folder = mkdtempSync(join(tmpdir(), 'syndexa-write-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const at = (name: string) => join(folder, name);
const write = (file: string, text: string, more = {}) =>
  writeNamed(recorder({ cwd: folder }), file, text, more);
const failure = (file: string, more = {}): unknown => {
  try {
    return void write(file, 'new', more);
  } catch (error) {
    return error;
  }
};

describe('a file that a person names', () => {
  it('is made, replaced with its mode, and read through a link', () => {
    write('ads.yaml', 'one');
    chmodSync(at('ads.yaml'), 0o640);
    symlinkSync('ads.yaml', at('link.yaml'));
    write('link.yaml', 'two');
    expect(readFileSync(at('ads.yaml'), 'utf8')).toBe('two');
    expect(statSync(at('ads.yaml')).mode & 0o777).toBe(0o640);
    expect(lstatSync(at('link.yaml')).isSymbolicLink()).toBe(true);
    write('fresh.yaml', 'three', { fresh: true });
    expect(readdirSync(folder).sort()).toEqual(['ads.yaml', 'fresh.yaml', 'link.yaml']);
  });

  it('stays as it is when it must not be replaced, or cannot be', () => {
    writeFileSync(at('ads.yaml'), 'old');
    expect(failure('ads.yaml', { fresh: true })).toMatchObject({
      message: 'ads.yaml already exists and was not changed.',
      code: exit.refused,
      fix: 'Name another file.',
    });
    // Where the new text would be put together.
    mkdirSync(at(`ads.yaml.${process.pid}.new`));
    expect(failure('ads.yaml')).toBeInstanceOf(Error);
    expect(readFileSync(at('ads.yaml'), 'utf8')).toBe('old');
  });

  it.each([
    [
      'none/ads.yaml',
      'none/ads.yaml cannot be written: its folder does not exist.',
      'Check the path, or name another file.',
    ],
    ['.', '. cannot be written: it is a folder.', 'Check the path, or name another file.'],
    ['/dev/full', '/dev/full cannot be written: the disk is full.', 'Free some disk space and run it again.'],
  ])('says why it cannot be written: %s', (file, message, fix) => {
    expect(failure(file)).toMatchObject({ message, fix, code: exit.wrongUse });
  });
});
