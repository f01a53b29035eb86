// Runs every command of the guide pages per stack on a copy of the demo, and writes its output below it.
// With --check it only says whether a page is as a run would leave it.
import { execFile } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const pages = join(root, 'docs', 'stacks');
const blocks = /```console\n\$ ([^\n]+)\n[^]*?```/g;
const check = process.argv.includes('--check');
const { SYNDEXA_URL: _, ...inherited } = process.env;
const script = (command) =>
  `syndexa() { ${JSON.stringify(process.execPath)} ${JSON.stringify(join(root, 'bin', 'run-bundle.cjs'))} "$@"; }\n${command}`;

/** What a command prints, both to its output and as errors. */
function said(command, options) {
  return new Promise((resolve) => {
    execFile('bash', ['-c', script(command)], { ...options, maxBuffer: 64e6 }, (_error, stdout, stderr) =>
      resolve(`${stdout}${stderr}`),
    );
  });
}

/** A page as a run leaves it. */
async function rerun(before) {
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-page-'));
  const trees = join(folder, 'trees');
  cpSync(join(root, 'demo', 'trees'), trees, { recursive: true });
  cpSync(join(root, 'demo'), join(folder, 'demo'), { recursive: true });
  const env = { ...inherited, SYNDEXA_HOME: join(folder, 'home'), NO_COLOR: '1', COLUMNS: '100' };
  const outputs = [];
  for (const [, command] of before.matchAll(blocks)) {
    const output = (await said(command, { cwd: trees, env }))
      .replaceAll(trees, '/home/mara/trees')
      .replaceAll('```', "'''")
      .trimEnd();
    outputs.push(`\`\`\`console\n$ ${command}\n${output}${output === '' ? '' : '\n'}\`\`\``);
  }
  rmSync(folder, { recursive: true, force: true });
  return before.replace(blocks, () => outputs.shift());
}

// Each page has a folder of its own: they are run at the same time.
const names = readdirSync(pages).filter((file) => file.endsWith('.md'));
const stale = await Promise.all(
  names.map(async (name) => {
    const before = readFileSync(join(pages, name), 'utf8');
    const after = await rerun(before);
    if (after === before) return false;
    if (check) process.stderr.write(`docs/stacks/${name} is not as a run leaves it: npm run stack-pages\n`);
    else writeFileSync(join(pages, name), after);
    return true;
  }),
);
process.exit(check && stale.includes(true) ? 1 : 0);
