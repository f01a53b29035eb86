import type { Command } from 'commander';
import stringWidth from 'string-width';
import { describe, expect, it } from 'vitest';
import { capabilities } from '../../src/api/capabilities.js';
import { pages } from '../../src/api/pages.js';
import { wantedAt } from '../../src/cli/completion/complete.js';
import { paintFor } from '../../src/cli/io.js';
import { buildProgram, run } from '../../src/cli/program.js';
import { recorder } from '../support/recorder.js';
import { shapesByCommand } from '../support/shapes.js';

const paint = paintFor(false);
function commandsOf(command: Command, path: string[] = []): { path: string[]; command: Command }[] {
  return command.commands.flatMap((sub) => {
    const at = [...path, sub.name()];
    return [{ path: at, command: sub }, ...commandsOf(sub, at)];
  });
}
const commands = commandsOf(buildProgram(recorder(), paint, { code: 0 }));
const all = commands.map(({ path, command }) => [path.join(' '), command, path] as const);

describe('help', () => {
  it.each(all)('of %s fits 80 columns', async (name, _, path) => {
    for (const args of [
      [...path, '--help'],
      ['help', ...path],
    ]) {
      if (name === 'complete' && args[0] !== 'help') continue;
      const io = recorder();
      expect(await run(args, io, paint)).toBe(0);
      expect(io.text).toContain(`Usage: syndexa ${name}`);
      expect(io.text.split('\n').filter((line) => stringWidth(line) > 80)).toEqual([]);
    }
  });

  it.each(all)('of %s describes every option', (_, command) => {
    for (const { flags, description } of command.options)
      expect([flags, description]).not.toEqual([flags, '']);
  });

  it('says which commands there are when one is not', async () => {
    const io = recorder();
    expect(await run(['help', 'title', 'nope'], io, paint)).toBe(2);
    expect(io.errors).toContain('There is no command title nope.');
  });
});

describe('arguments', () => {
  const taking = all.filter(
    ([name, command]) => command.registeredArguments.length > 0 && name !== 'complete',
  );
  it.each(taking)('of %s are not empty', async (_, command, path) => {
    const values = command.registeredArguments.map(() => '');
    const mandatory = command.options
      .filter(({ mandatory: must }) => must)
      .flatMap(({ long, argChoices }) => [long!, argChoices?.[0] ?? '1']);
    for (const [blank, json] of [
      ['', false],
      [' ', true],
    ] as const) {
      const io = recorder();
      const args = [...path, ...values.map(() => blank), ...mandatory, ...(json ? ['--json'] : [])];
      expect(await run(args, io, paint)).toBe(2);
      expect(io.errors).not.toBe('');
      if (json) expect(JSON.parse(io.text)).toMatchObject({ code: 'wrong-use', status: 400 });
    }
  });
});

describe('documents of --json', () => {
  it.each(all.filter(([, command]) => command.options.some(({ long }) => long === '--json')))(
    'that of %s has a published shape',
    (name) => {
      expect([...shapesByCommand.keys()]).toContain(name);
    },
  );
});

describe('completion', () => {
  const program = buildProgram(recorder(), paint, { code: 0 });
  const wanted = (line: string) => {
    const words = line.split(' ');
    return wantedAt(program, words.slice(0, -1), words.at(-1)!);
  };
  const words = (line: string) => {
    const found = wanted(line);
    return typeof found === 'object' ? found.words.map(({ word }) => word) : found;
  };
  it.each([
    ['board ', 'titles'],
    ['check ', 'files'],
    ['check x --title ', 'titles'],
    ['check x --title kelp ', 'unknown'],
    ['unwire ', 'networks'],
    ['unwire cobalt-heron ', 'files'],
    ['provision kelp --network ', 'networks'],
    ['title add ', 'titles'],
  ])('%s', (line, what) => {
    expect(words(line)).toBe(what);
  });
  it('of commands, options and choices', () => {
    expect(words('')).toContain('check');
    expect(words('')).not.toContain('complete');
    expect(words('title ')).toContain('add');
    expect(words('help title ')).toContain('add');
    expect(words('check x --format ')).toEqual(['text', 'json', 'sarif', 'junit']);
    expect(words('completion ')).toEqual(['bash', 'zsh', 'fish']);
  });
  it.each(all.filter(([name]) => name !== 'complete'))(
    'of the options of %s are those of its help',
    (name, command) => {
      expect(words(`${name} --`)).toEqual(
        expect.arrayContaining(command.options.filter(({ hidden }) => !hidden).map(({ long }) => long)),
      );
    },
  );
});

describe('every command', () => {
  const internal = ['complete', 'docs', 'help'];
  const whole = commands.filter(({ command }) => command.commands.length === 0);
  const names = whole.map(({ path }) => path.join(' ')).filter((name) => !internal.includes(name));

  it('has its place in the console, or a reason to have none', () => {
    expect(Object.keys(capabilities).sort()).toEqual([...names].sort());
    for (const [name, place] of Object.entries(capabilities)) {
      if ('page' in place) expect([name, place.page in pages]).toEqual([name, true]);
      else expect([name, place.terminal]).toEqual([name, expect.stringMatching(/^[A-Z].{15,}\.$/)]);
    }
  });

  it('is behind every page but those that show what several do', () => {
    const reached = Object.values(capabilities).flatMap((place) => ('page' in place ? [place.page] : []));
    const views = ['allTallies', 'bulk', 'rule', 'rules', 'settings'];
    expect(
      Object.keys(pages)
        .filter((page) => !(reached as string[]).includes(page))
        .sort(),
    ).toEqual(views.sort());
  });
});
