// Prints which share of the code's lines are tests; fails outside a fifth to two fifths.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

function lines(folder) {
  let total = 0;
  for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) total += lines(path);
    else if (/\.(ts|tsx|mjs|css|cc|h)$/.test(entry.name))
      total += readFileSync(join(root, path), 'utf8')
        .split('\n')
        .filter((line) => line.trim()).length;
  }
  return total;
}

const code = ['src', 'scripts', 'bench'].reduce((sum, folder) => sum + lines(folder), 0);
const tests = lines('tests');
const share = tests / (code + tests);
console.log(`${code} lines of code, ${tests} lines of tests: ${(share * 100).toFixed(1)} % are tests.`);
process.exit(share > 0.2 && share < 0.4 ? 0 : 1);
