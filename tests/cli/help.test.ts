import type { Command } from 'commander';
import { expect, it } from 'vitest';
import { paintFor } from '../../src/cli/io.js';
import { buildProgram, run } from '../../src/cli/program.js';
import { recorder } from '../support/recorder.js';

const paint = paintFor(false);

function namesOf(command: Command, before: readonly string[] = []): string[][] {
  return command.commands.flatMap((sub) => {
    const path = [...before, sub.name()];
    return [path, ...namesOf(sub, path)];
  });
}

// After a change that is meant, `npx vitest run tests/cli/help -u` writes the file anew.
it('every command says how it is used', async () => {
  const pages: string[] = [];
  for (const path of [[], ...namesOf(buildProgram(recorder(), paint, { code: 0 }))]) {
    if (path[0] === 'complete') continue;
    const io = recorder();
    expect([path, await run([...path, '--help'], io, paint)]).toEqual([path, 0]);
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
