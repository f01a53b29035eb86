// Runs every command of the guide pages per stack on a copy of the demo, and writes its output below it.
// With --check it only says whether a page is as a run would leave it.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const pages = join(root, 'docs', 'stacks');
const check = process.argv.includes('--check');
const { SYNDEXA_URL: _, ...inherited } = process.env;
let stale = 0;
for (const name of readdirSync(pages).filter((file) => file.endsWith('.md'))) {
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-page-'));
  const trees = join(folder, 'trees');
  cpSync(join(root, 'demo', 'trees'), trees, { recursive: true });
  cpSync(join(root, 'demo'), join(folder, 'demo'), { recursive: true });
  const env = { ...inherited, SYNDEXA_HOME: join(folder, 'home'), NO_COLOR: '1', COLUMNS: '100' };
  const before = readFileSync(join(pages, name), 'utf8');
  const after = before.replace(/```console\n\$ ([^\n]+)\n[^]*?```/g, (_whole, command) => {
    const script = `syndexa() { ${JSON.stringify(process.execPath)} ${JSON.stringify(join(root, 'bin', 'run-bundle.cjs'))} "$@"; }\n${command}`;
    const { stdout, stderr } = spawnSync('bash', ['-c', script], { cwd: trees, env, encoding: 'utf8' });
    const output = `${stdout}${stderr}`
      .replaceAll(trees, '/home/mara/trees')
      .replaceAll('```', "'''")
      .trimEnd();
    return `\`\`\`console\n$ ${command}\n${output}${output === '' ? '' : '\n'}\`\`\``;
  });
  rmSync(folder, { recursive: true, force: true });
  if (after === before) continue;
  stale += 1;
  if (check) process.stderr.write(`docs/stacks/${name} is not as a run leaves it: npm run stack-pages\n`);
  else writeFileSync(join(pages, name), after);
}
process.exit(check && stale > 0 ? 1 : 0);
