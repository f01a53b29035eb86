// Benchmarks, each a ratio of two things measured side by side in this one run.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { introduce, measuring, pause, report } from './measure.mjs';
import { makeTree } from './tree.mjs';

const { folder, tree, env, client, syndexa, serve, survey, forget, check, search } = measuring();
const rounds = 11;
introduce(makeTree(tree, 20_000), rounds);

const saved = join(tree, 'app', 'src', 'main', 'AndroidManifest.xml');

try {
  const apart = { anew: [], again: [], theirs: [] };
  survey();
  search();
  for (let round = 0; round < rounds; round++) {
    forget();
    apart.anew.push(survey());
    // What was written a moment ago is not taken for known, whatever its times say.
    if (round === 0) await pause(2_500);
    survey();
    apart.again.push(survey());
    apart.theirs.push(search());
  }
  report('first survey, service started for it, against rg', 8, apart.anew, apart.theirs);
  report('next survey, service started for it, against rg', 5, apart.again, apart.theirs);

  const byClient = { first: [], restarted: [], second: [], changed: [], plain: [] };
  const inside = { first: [], second: [], changed: [] };
  let resident = 0;
  const ended = async (service) => {
    resident = Math.max(resident, service.peak());
    await service.stop();
  };
  /** A service with nothing behind it but its start. */
  const started = async () => {
    const service = await serve('--root', folder);
    syndexa('network', 'list');
    return service;
  };
  const save = (mark) => {
    const text = readFileSync(saved, 'utf8').replace(/(<!-- turn \S+ -->\n)?$/, `<!-- turn ${mark} -->\n`);
    writeFileSync(saved, text);
  };
  for (let round = 0; round < 7; round++) {
    forget();
    let service = await started();
    byClient.first.push(survey());
    byClient.plain.push(search());
    await ended(service);

    service = await started();
    byClient.restarted.push(survey());
    // The folder is followed from now on; setting that up goes on in the background.
    await pause(5_000);
    survey();
    for (let turn = 0; turn < 3; turn++) {
      byClient.second.push(survey());
      inside.second.push(await service.surveyed());
      save(`${round}-${turn}-a`);
      byClient.changed.push(survey());
      save(`${round}-${turn}-b`);
      inside.changed.push(await service.surveyed());
    }
    await ended(service);

    forget();
    service = await started();
    inside.first.push(await service.surveyed());
    await ended(service);
  }
  const { plain } = byClient;
  report('first survey, with a running service, against rg', 4, byClient.first, plain);
  report('first survey after it was started again, against rg', 4, byClient.restarted, plain);
  report('second survey, with a running service, against rg', 1.5, byClient.second, plain);
  report('survey after one file changed, against rg', 1.5, byClient.changed, plain);
  report('in the service: second survey against the first', 0.3, inside.second, inside.first);
  report('in the service: after one file changed against the first', 0.5, inside.changed, inside.first);

  const few = [];
  const many = [];
  const service = await serve('--root', folder);
  const titles = (count) => {
    const names = Array.from({ length: count }, (_, index) => `title-${index}`);
    const title = (name) =>
      `  ${name}:\n    name: ${name}\n    editions: { android: { identifier: example.bench.${name} } }\n`;
    const document = join(folder, 'roster.yaml');
    writeFileSync(document, `syndexa: 1\ntitles:\n${names.map(title).join('')}`);
    syndexa('roster', 'import', document, '--yes');
  };
  titles(1);
  check();
  await pause(5_000);
  for (let round = 0; round < rounds; round++) few.push(check());
  titles(1_000);
  check();
  for (let round = 0; round < rounds; round++) many.push(check());
  report('check with a roster of 1,000 titles against 1 title', 1.5, many, few);
  resident = Math.max(resident, service.peak());
  await service.stop();

  const { stderr } = spawnSync('/usr/bin/time', ['-v', process.execPath, client, 'survey', tree, '--json'], {
    env,
    maxBuffer: 1 << 28,
  });
  const peak = Number(/Maximum resident set size \(kbytes\): (\d+)/.exec(stderr.toString())?.[1]) / 1024;
  console.log(
    `\nPeak memory: ${peak.toFixed(0)} MB with the service in the same process, ${resident.toFixed(0)} MB in a running service (bound 300 MB).`,
  );
} finally {
  rmSync(folder, { recursive: true, force: true });
}
