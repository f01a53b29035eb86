import { it } from 'vitest';
import { appendFileSync } from 'node:fs';
import { readers, tokens } from '/work/main/tests/support/readers.js';
function best(work: () => unknown, rounds: number) { let least = Infinity; for (let i=0;i<rounds;i++){ const f=process.cpuUsage(); work(); const {user,system}=process.cpuUsage(f); least=Math.min(least,(user+system)/1000);} return least; }
it('x', () => {
  for (const { name, read, seeds, parsed } of readers) {
    if (parsed) continue;
    for (const unit of [...tokens, seeds[0] ?? '']) {
      const text = (n: number) => unit.repeat(Math.ceil(n / unit.length)).slice(0, n);
      const [a, c] = [text(100_000), text(1_000_000)];
      const big = best(() => read(c), 1);
      if (big < 60) continue;
      const small = best(() => read(a), 3);
      if (big / Math.max(1, small) < 13) continue;
      const big2 = best(() => read(c), 2);
      appendFileSync('/tmp/growth.txt', `${name}\t${JSON.stringify(unit).slice(0,40)}\t${small.toFixed(1)}\t${big.toFixed(0)}\t${big2.toFixed(0)}\t${(big2/Math.max(1,small)).toFixed(1)}\n`);
    }
  }
}, 3_600_000);
