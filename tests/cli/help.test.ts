import type { Command } from 'commander';
import { expect, it } from 'vitest';
import { paintFor } from '../../src/cli/io.js';
import { buildProgram, run } from '../../src/cli/program.js';
import { recorder } from '../support/recorder.js';

const paint = paintFor(false);

interface Named {
  path: readonly string[];
  isGroup: boolean;
}

function namesOf(command: Command, before: readonly string[] = []): Named[] {
  return command.commands.flatMap((sub) => {
    const path = [...before, sub.name()];
    return [{ path, isGroup: sub.commands.length > 0 }, ...namesOf(sub, path)];
  });
}

// After a change that is meant, `npx vitest run tests/cli/help -u` writes the file anew.
it('every command says how it is used, with an example', async () => {
  const pages: string[] = [];
  const all = namesOf(buildProgram(recorder(), paint, { code: 0 }));
  for (const { path, isGroup } of [{ path: [], isGroup: true }, ...all]) {
    const [name = ''] = path;
    if (name === 'complete') continue;
    const io = recorder();
    expect([path, await run([...path, '--help'], io, paint)]).toEqual([path, 0]);
    if (!isGroup && !['docs', 'help', 'completion'].includes(name))
      expect(io.text).toContain(`Example, on the demo:\n  syndexa ${path.join(' ')}`);
    pages.push(`$ syndexa ${[...path, '--help'].join(' ')}\n${io.text}`);
  }
  await expect(pages.join('\n')).toMatchFileSnapshot('printed/help.txt');
});

it('wrong values are refused, with what is allowed', async () => {
  const said: string[] = [];
  for (const line of [
    'serve --port 65536',
    'serve --port -1',
    'serve --port x',
    'partner clock --advance',
    'partner market reef --fill 101',
    'partner market reef --fill 1.5',
    'partner report reef --days 0',
    'partner report reef --days 9999',
    'partner incident reef --what nothing --from 2026-05-01',
    'rehearse . --seed x',
    'check . --format poem',
    'tally release kelp 1 --platform windows',
    'completion powershell',
    'help nobody',
    'help title nobody',
    'token add bot --role king',
    'network',
    'network lst',
    '--nothing',
    'check . --titel kelp',
  ]) {
    const io = recorder();
    const code = await run(line.split(' '), io, paint);
    said.push(`$ syndexa ${line}\n${io.text}${io.errors}(${code})\n`);
  }
  await expect(said.join('\n')).toMatchFileSnapshot('printed/refused.txt');
});
