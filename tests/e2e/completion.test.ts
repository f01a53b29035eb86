import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { syndexa } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

let home: string;
beforeAll(async () => {
  home = temporaryFolder();
  const add = ['title', 'add', 'kelp', '--name', 'Kelp', '--android', 'example.brine.kelp'];
  expect((await syndexa(add, home)).code).toBe(0);
});
afterAll(() => rmSync(home, { recursive: true, force: true }));

/** How each shell is asked what a line that a person has begun may go on with. */
const shells = {
  bash: {
    program: 'bash',
    script: (words: string[]) => `source <(syndexa completion bash)
      COMP_WORDS=(${words.map((word) => `'${word}'`).join(' ')}); COMP_CWORD=${words.length - 1}
      _syndexa; printf '%s\\n' "\${COMPREPLY[@]}"`,
  },
  zsh: {
    program: 'zsh',
    // What draws the list is stood in for: only a person at a terminal can see it.
    script: (words: string[]) => `compdef() { }; _files() { print -r -- FILES }
      _describe() { print -rl -- "\${(@)\${(@P)2}%%:*}" }
      source <(syndexa completion zsh)
      words=(${words.map((word) => `'${word}'`).join(' ')}); CURRENT=${words.length}
      _syndexa`,
  },
  fish: {
    program: 'fish',
    script: (words: string[]) => `syndexa completion fish | source; complete -C '${words.join(' ')}'`,
  },
} as const;

function completed(shell: keyof typeof shells, line: string): string[] {
  const { program, script } = shells[shell];
  const out = execFileSync(program, ['-c', script(line.split(' '))], {
    encoding: 'utf8',
    cwd: join(root, 'demo'),
    env: {
      ...process.env,
      SYNDEXA_HOME: home,
      PATH: `${join(root, 'bin')}:${process.env.PATH}`,
      TERM: 'dumb',
      HOME: home,
    },
  });
  return out
    .split('\n')
    .map((word) => word.split('\t')[0]!.trim())
    .filter((word) => word !== '');
}

it.each(Object.keys(shells) as (keyof typeof shells)[])(
  '%s completes commands, options, choices and titles',
  (shell) => {
    expect(completed(shell, 'syndexa title a')).toEqual(['add', 'adopt']);
    expect(completed(shell, 'syndexa check x --form')).toEqual(['--format']);
    expect(completed(shell, 'syndexa check x --format s')).toEqual(['sarif']);
    expect(completed(shell, 'syndexa board ')).toEqual(['kelp']);
    expect(completed(shell, 'syndexa check tre')).toEqual(
      { bash: [], zsh: ['FILES'], fish: ['trees/'] }[shell],
    );
  },
);
