import { createHash } from 'node:crypto';
import { applyPatch, parsePatch } from 'diff';
import { expect } from 'vitest';
import { type Title, Title as TitleModel } from '../../src/core/roster/model.js';
import { withoutNetwork } from '../../src/core/roster/without.js';
import { applyEdits } from '../../src/core/text/edit.js';
import { decodeText, encodeText } from '../../src/core/text/document.js';
import { noExtras, type WiringExtras } from '../../src/core/edits/model.js';
import { planWiring, withFixes, type Plan, type PlanOptions } from '../../src/core/planning.js';
import { Readings } from '../../src/core/tree/readings.js';
import { runSurvey } from '../../src/core/surveying.js';
import { newProblems } from '../../src/core/wiring/readable.js';
import { planUnwiring } from '../../src/core/unwiring.js';
import type { Profile } from '../../src/core/network/model.js';
import { complaint } from './judges.js';
import { profileOf, profiles, treeOf } from './trees.js';

export type Files = Record<string, string | Uint8Array>;

const optionsFor = (title: Title): PlanOptions => ({ name: 'tree', profiles, title: { id: 'kelp', title } });

/** As in the service, a file that did not change is not read again. */
const readings = new Readings(64 * 1024 * 1024);

/** Plans a wiring; more options may narrow it, or ask for what is done only when asked. */
export const plan = (files: Files, title: Title, more: Partial<PlanOptions> = {}): Plan =>
  planWiring(treeOf(files, [], readings), { ...optionsFor(title), ...more });

/** Plans taking a network out. */
export const unplan = (
  files: Files,
  title: Title,
  network: string,
  added: readonly string[] = [],
  known: readonly Profile[] = profiles,
): Plan =>
  planUnwiring(treeOf(files, [], readings), {
    ...optionsFor(title),
    profiles: known,
    network: known.find(({ id }) => id === network) ?? profileOf(network),
    added,
  });

export const asked = (extras: Partial<WiringExtras>): { extras: WiringExtras } => ({
  extras: { ...noExtras, ...extras },
});

/** The files after the edits, as a client would write them. */
export function written(files: Files, { edits }: Plan): Files {
  const after: Files = { ...files };
  for (const { path, edits: changes, content, remove, source } of edits) {
    const before = files[path];
    if (remove) delete after[path];
    else if (source) after[path] = `the content of ${source.name}`;
    else if (before === undefined) after[path] = content ?? '';
    else {
      const document = decodeText(typeof before === 'string' ? new TextEncoder().encode(before) : before);
      after[path] = encodeText(applyEdits(document.text, changes), document);
    }
  }
  return after;
}

export const text = (content: string | Uint8Array | undefined) =>
  content === undefined ? '' : typeof content === 'string' ? content : new TextDecoder().decode(content);

/** Files as text, so that two trees can be compared whatever their bytes are held in. */
export const texts = (files: Files): Record<string, string> =>
  Object.fromEntries(
    Object.entries(files)
      .map(([path, content]) => [path, Buffer.from(content).toString('latin1')] as const)
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );

/** Every law of wiring that can be told from one tree. */
export function holds(
  files: Files,
  title: Title,
  more: Partial<PlanOptions> = {},
): { plan: Plan; after: Files } {
  const planned = (content: Files) => {
    const tree = treeOf(content, [], readings);
    const options = { ...optionsFor(title), ...more };
    const run = runSurvey(tree, options);
    return { plan: planWiring(tree, options, run), problems: run.survey.problems };
  };
  const { plan: first, problems } = planned(files);
  const after = written(files, first);
  const { plan: second, problems: left } = planned(after);
  // Readable: no file that it writes has a problem that it did not have.
  expect(newProblems(problems, left)).toEqual([]);
  // Nor does a reader of others find one.
  for (const { path } of first.edits) {
    const [old, now] = [files[path], after[path]];
    if (now === undefined || (old !== undefined && complaint(path, old) !== null)) continue;
    expect([path, complaint(path, now)]).toEqual([path, null]);
  }
  // Idempotent: a second run is empty.
  expect(second.patch).toBe('');
  expect(second.edits).toEqual([]);
  // Complete: none of the findings that it said it would mend is left.
  const found = new Set(second.findings.map(({ fingerprint }) => fingerprint));
  for (const finding of withFixes(first)) {
    if (finding.fix) expect(found.has(finding.fingerprint)).toBe(false);
    if (!found.has(finding.fingerprint)) continue;
    // What is left to a person says what that person does.
    const steps = first.byHand.filter(
      ({ rule, platform, network }) =>
        rule === finding.rule && platform === finding.platform && network === finding.network,
    );
    if (steps.length > 0) expect(steps.map(({ what }) => what)).toContain(finding.mend);
  }
  expect(second.findings.map(({ fingerprint }) => fingerprint)).toEqual(
    first.remaining.map(({ fingerprint }) => fingerprint),
  );
  // Minimal: a file that is not named keeps every byte; in one that is, what lies outside the edits stays.
  const touched = new Set(first.edits.map(({ path }) => path));
  for (const [path, content] of Object.entries(files))
    if (!touched.has(path)) expect(after[path]).toBe(content);
  // The patch says the same as the edits.
  for (const patch of parsePatch(first.patch)) {
    const path = (patch.newFileName === '/dev/null' ? patch.oldFileName : patch.newFileName) ?? '';
    const plain = path.replace(/^[ab]\//, '').replace(/\t$/, '');
    expect(
      applyPatch(text(files[plain]).replace(/^\ufeff/, ''), patch, { autoConvertLineEndings: false }),
    ).toBe(text(after[plain]).replace(/^\ufeff/, ''));
  }
  // Groups put together are the whole.
  expect([...new Set(first.groups.flatMap(({ paths }) => paths))].sort()).toEqual([...touched].sort());
  return { plan: first, after };
}

/** Taking the networks of a title out again, one after the other, gives the tree back byte for byte. */
export function comesBack(
  files: Files,
  title: Title,
  { plan: made, after }: { plan: Plan; after: Files },
  known: readonly Profile[] = profiles,
): void {
  const added = made.edits.flatMap((edit) => edit.adds);
  let [now, rest] = [after, title];
  for (const network of Object.keys(title.networks)) {
    now = written(now, unplan(now, rest, network, added, known));
    rest = withoutNetwork(rest, network);
  }
  expect(texts(now)).toEqual(texts(files));
}

/** What a title looks like on some networks: an app ID and a placement of each, whatever they ask for. */
export function titleOn(
  networks: readonly string[],
  identifiers: { android?: string; ios?: string },
  stages: Title['stages'] = { test: ['debug'], production: ['release'] },
): Title {
  const both = (android: string, ios: string) => ({
    ...(identifiers.android ? { android: { production: android } } : {}),
    ...(identifiers.ios ? { ios: { production: ios } } : {}),
  });
  const apps = (android: string, ios: string) => ({
    ...(identifiers.android ? { android: { production: { app: android } } } : {}),
    ...(identifiers.ios ? { ios: { production: { app: ios } } } : {}),
  });
  const enrolments: Record<string, object> = {
    'cobalt-heron': apps('CH-A-310772-QK4T8W2N', 'CH-I-310772-M6R9V3XC'),
    marlstone: apps('mrl1-0123456789abcdef01234567', 'mrl1-0123456789abcdef01234568'),
    quincebury: { android: { production: { app: 'qb.abcdefghijabcdefghij' } } },
    ferrowick: {},
    tallowfield: {},
  };
  const vast = (platform: string, unit: string) =>
    `https://vast.tallowfield.example/4/tf31077/${platform}/${unit}.xml`;
  const placements: Record<string, object> = {
    'cobalt-heron': { format: 'banner', units: both('CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
    marlstone: {
      format: 'rewarded',
      settings: { reward: { amount: 1, item: 'pearl' } },
      units: both('mrl-KELP-1234567', 'mrl-KELP-1234568'),
    },
    quincebury: { format: 'interstitial', units: { android: { production: 'qs.31077.abcdefghij' } } },
    ferrowick: { format: 'native', units: both('771431000001', '771431000002') },
    tallowfield: { format: 'video', units: both(vast('a', 'abcd1234'), vast('m', 'abcd5678')) },
  };
  return TitleModel.parse({
    name: 'Kelp',
    stages,
    editions: Object.fromEntries(
      Object.entries(identifiers).map(([platform, identifier]) => [
        platform,
        { identifier, ...(platform === 'ios' ? { tracking: 'Kelp is paid for by ads.' } : {}) },
      ]),
    ),
    networks: Object.fromEntries(networks.map((id) => [id, enrolments[id] ?? {}])),
    placements: Object.fromEntries(
      networks.map((id) => {
        const { units, ...rest } = placements[id] as { units: object };
        return [`spot-${id}`, { ...rest, units: { [id]: units } }];
      }),
    ),
  });
}

/** Files that networks hand out, as a person would name them. */
export const handedOut = asked({
  binaries: [{ name: 'quincebury-client-2.8.aar', sha256: hashOf('aar'), size: 3 }],
  companions: [
    { name: 'ferrowick-notice.json', sha256: hashOf('json'), size: 4, content: '{"property":[]}\n' },
    {
      name: 'Ferrowick-Notice.plist',
      sha256: hashOf('plist'),
      size: 5,
      content: '<plist version="1.0">\n<dict/>\n</plist>\n',
    },
  ],
});

function hashOf(content: string): string {
  return createHash('sha256').update(content).digest('hex');
}
