// Ten titles on every stack in one tree of 50,000 files: its first and second survey against a search of the same tree.
import { rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { introduce, measuring, pause, report } from './measure.mjs';
import { makeMonorepo } from './tree.mjs';

const { folder, tree, syndexa, serve, survey, forget, search } = measuring();
const rounds = 5;
const demo = join(dirname(fileURLToPath(import.meta.url)), '..', 'demo', 'trees');
introduce(makeMonorepo(tree, demo, 50_000), rounds);

try {
  const { stacks, editions } = JSON.parse(syndexa('survey', tree, '--json').stdout);
  console.log(
    `${stacks.length} trees of ${new Set(stacks.map(({ stack }) => stack)).size} stacks, ${editions.length} editions.\n`,
  );
  const [first, second, plain] = [[], [], []];
  let resident = 0;
  search();
  for (let round = 0; round < rounds; round++) {
    forget();
    const service = await serve('--root', folder);
    syndexa('network', 'list');
    first.push(survey());
    plain.push(search());
    // The folder is followed from now on; setting that up goes on in the background.
    await pause(10_000);
    survey();
    second.push(survey(), survey(), survey());
    resident = Math.max(resident, service.peak());
    await service.stop();
  }
  report('ten titles: first survey, running service, against rg', 10, first, plain);
  report('ten titles: second survey against rg', 1.5, second, plain);
  report('ten titles: second survey against the first', 0.3, second, first);
  console.log(`\nPeak memory of the service: ${resident.toFixed(0)} MB (bound 450 MB).`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
