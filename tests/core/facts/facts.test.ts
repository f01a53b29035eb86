import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { makeBoard } from '../../../src/core/board/board.js';
import { runChecks } from '../../../src/core/checks/run.js';
import { isWhereBuildLooks } from '../../../src/core/facts/effective.js';
import { factDefinitions } from '../../../src/core/facts/kinds/index.js';
import { Fact, Survey } from '../../../src/core/facts/model.js';
import { factDetail, factSubject, labelOf } from '../../../src/core/facts/show.js';
import { recogniser } from '../../../src/core/network/recognise.js';
import { readRoster } from '../../../src/core/roster/document.js';
import { editionOf } from '../../../src/core/roster/modules.js';
import type { Title } from '../../../src/core/roster/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import {
  androidFiles,
  appIdMetaData,
  filesBelow,
  kelp,
  manifest,
  profiles,
  root,
  treeOf,
} from '../../support/trees.js';

const { roster } = readRoster(readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8'));

/** What a survey, a check and the board say of a tree. */
function looked(files: Parameters<typeof treeOf>[0], id: string, title: Title) {
  const { survey } = runSurvey(treeOf(files), { name: id, profiles, title: { id, title } });
  const now = '2026-06-01T12:00:00Z';
  const { findings, summary } = runChecks({
    survey,
    profiles,
    recogniser: recogniser(profiles),
    title,
    titleId: id,
    inventories: [],
    now,
  });
  const readings = (['android', 'ios'] as const).flatMap((platform) => {
    const edition = editionOf(survey.editions, title, platform);
    const { facts, unresolved } = survey;
    const common = { tree: id, snapshot: 's', readAt: now, facts, unresolved, findings, summary };
    return edition ? [{ platform, edition, ...common }] : [];
  });
  return { survey, findings, board: makeBoard(id, title, profiles, { readings, inventories: [], now }) };
}

describe('kinds of facts', () => {
  it('are one file each, all in the list', () => {
    const files = readdirSync(join(root, 'src', 'core', 'facts', 'kinds'))
      .map((name) => name.replace(/\.ts$/, ''))
      .filter((name) => !['all', 'index'].includes(name));
    expect(factDefinitions.map(({ kind }) => kind).sort()).toEqual(files.sort());
  });

  it('say in a sentence what they are', () => {
    for (const { label, description } of factDefinitions) {
      expect(label).toMatch(/^[A-Za-z]/);
      expect(description).toMatch(/^[A-Z].*\.$/);
    }
  });
});

describe('the facts of every demo tree', () => {
  const trees = readdirSync(join(root, 'demo', 'trees')).flatMap((name) =>
    Object.entries(roster?.titles ?? {}).map(([id, title]) => [name, id, title] as const),
  );

  it.each(trees)('%s, for %s: are what their schemas say, and can be shown', (name, id, title) => {
    const { survey } = looked(filesBelow(join(root, 'demo', 'trees', name)), id, title);
    expect(Survey.parse(survey)).toEqual(survey);
    for (const fact of survey.facts) {
      const shown = [labelOf(fact.kind), factSubject(fact), factDetail(fact)];
      expect(shown.filter((part) => part === '' || /undefined|\{/.test(part ?? ''))).toEqual([]);
    }
  });

  it.each(trees)('%s, for %s: a missing app ID is missing on the board too', (name, id, title) => {
    const { findings, board } = looked(filesBelow(join(root, 'demo', 'trees', name)), id, title);
    for (const { platform, network } of findings.filter(({ rule }) => rule === 'app-id/missing')) {
      const row = board.rows.find((one) => one.network === network && one.placement === null);
      expect(row?.cells.filter((cell) => cell.platform === platform && cell.build === 'agrees')).toEqual([]);
    }
  });

  it('a fact with a field of another kind is none', () => {
    const fact = {
      kind: 'app-id',
      network: 'cobalt-heron',
      platform: 'android',
      module: 'app',
      variants: ['debug'],
      value: 'x',
      effective: true,
      place: { path: 'a', line: 1, column: 1 },
      chain: [],
    };
    expect(Fact.safeParse({ ...fact, carrier: 'manifest' }).success).toBe(true);
    expect(Fact.safeParse({ ...fact, carrier: 'layout' }).success).toBe(false);
    expect(Fact.safeParse(fact).success).toBe(false);
  });
});

describe('an app ID that the SDK does not look at', () => {
  const right = 'CH-A-310772-QK4T8W2N';
  const title = kelp();
  const inHead = (body: string) => manifest('        <activity android:name=".Main" />', body);
  it.each([
    ['in <manifest>', inHead(appIdMetaData(right)), 'manifest'],
    ['in <queries>', inHead(`    <queries>\n${appIdMetaData(right)}\n    </queries>`), 'queries'],
    [
      'in an activity',
      manifest(`<activity android:name=".Main">\n${appIdMetaData(right)}\n</activity>`),
      'activity .Main',
    ],
  ])('%s is missing for the check and for the board, and the step is open', (_, text, holder) => {
    const files = androidFiles({ 'app/src/main/AndroidManifest.xml': text });
    const { survey, findings, board } = looked(files, 'kelp', title);
    const facts = survey.facts.filter(({ kind }) => kind === 'app-id');
    expect(facts).toMatchObject([{ value: right, effective: { reason: 'nested', about: holder } }]);
    expect(facts.some(isWhereBuildLooks)).toBe(false);
    expect(findings.map(({ rule }) => rule)).toEqual(
      expect.arrayContaining(['app-id/missing', 'app-id/nested-too-deep']),
    );
    const row = board.rows.find(({ network, placement }) => network === 'cobalt-heron' && !placement);
    const cells = row?.cells.filter(({ platform }) => platform === 'android') ?? [];
    expect(cells.map(({ stage, build }) => `${stage} ${build}`)).toEqual([
      'test absent',
      'production absent',
    ]);
  });
});
