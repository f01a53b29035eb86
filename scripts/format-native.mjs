// Formats what is written in C++ as .clang-format says; with --check it only names the files that are not so.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { format } from '@wasm-fmt/clang-format/node';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const style = readFileSync(join(root, '.clang-format'), 'utf8');
const check = process.argv.includes('--check');
let odd = 0;

for (const entry of readdirSync(join(root, 'src'), { recursive: true, withFileTypes: true })) {
  if (!/\.(cc|h)$/.test(entry.name)) continue;
  const file = join(entry.parentPath, entry.name);
  const text = readFileSync(file, 'utf8');
  const formatted = format(text, file, style);
  if (formatted === text) continue;
  odd++;
  if (check) process.stderr.write(`${relative(root, file)} is not formatted: npm run format\n`);
  else writeFileSync(file, formatted);
}
process.exitCode = check && odd > 0 ? 1 : 0;
