// Formats what is written in C++ as .clang-format says; with --check it names the files that are not so, and what the
// compiler warns of.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { format } from '@wasm-fmt/clang-format/node';
import { compilerSays } from './native.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const style = readFileSync(join(root, '.clang-format'), 'utf8');
const check = process.argv.includes('--check');

for (const path of readdirSync(join(root, 'src'), { recursive: true })) {
  if (!/\.(cc|h)$/.test(path)) continue;
  const file = join(root, 'src', path);
  const text = readFileSync(file, 'utf8');
  const formatted = format(text, file, style);
  if (formatted === text) continue;
  if (check) complain(`src/${path} is not formatted: npm run format\n`);
  else writeFileSync(file, formatted);
}
if (check) complain(compilerSays());

function complain(text) {
  if (text === '') return;
  process.stderr.write(text);
  process.exitCode = 1;
}
