import { describe, expect, it } from 'vitest';
import { makeBoard } from '../../../src/core/board/board.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { findingsOf } from '../../support/rules.js';
import { profiles, treeOf } from '../../support/trees.js';
import { plan, titleOn, written, type Files } from '../../support/wiring.js';
import { wholeTrees } from '../../support/whole-trees.js';
import { unitIdNotInBuild } from '../../../src/core/checks/rules/unit-id-not-in-build.js';

// What Syndexa writes is no evidence that an app uses it: each tree is wired, and only then names its placements.

/** A file of the app that names the placement, by tree. */
const naming: Record<string, [path: string, code: string][]> = {
  'small trees': [
    [
      'app/src/main/kotlin/Shore.kt',
      'val unit = Placebook.spotMarlstone.unit(Placebook.Network.MARLSTONE)\n',
    ],
    ['Kelp/App.swift', 'func launch() { load(Placebook.spotMarlstone.unit(.marlstone)) }\n'],
  ],
  'a small Flutter project': [
    ['lib/shore.dart', 'final unit = Placebook.spotMarlstone.unit(Network.marlstone);\n'],
  ],
  'a small React Native project': [['src/Shore.ts', 'export const unit = Placebook.spotMarlstone.unit();\n']],
  'a small Expo project': [['src/Shore.ts', 'export const unit = Placebook.spotMarlstone.unit();\n']],
  'a small Unity project': [
    ['Assets/Scripts/Shore.cs', 'class Shore { object unit = Placebook.SpotMarlstone.Unit(1); }\n'],
  ],
  'a small MAUI project': [
    ['Shore.xaml', '<Page xmlns:x="x"><Spot Unit="{x:Static ads:Placebook.SpotMarlstone}" /></Page>\n'],
  ],
};

describe.each(Object.entries(naming))('a placebook in %s', (name, code) => {
  const { files, ids, stages } = wholeTrees[name]!;
  const title = titleOn(['marlstone'], ids, stages);
  const wired = written(files, plan(files, title));
  const missing = (tree: Files) =>
    findingsOf(tree as Record<string, string>, title, unitIdNotInBuild).map(({ platform }) => platform);
  const builds = (tree: Files) => {
    const { survey } = runSurvey(treeOf(tree), { name, profiles, title: { id: 'kelp', title } });
    const readings = survey.editions.map((edition) => ({
      platform: edition.platform,
      tree: name,
      snapshot: 's',
      readAt: '2026-06-01T12:00:00Z',
      edition,
      facts: survey.facts.filter(({ platform }) => platform === edition.platform),
      unresolved: [],
      findings: [],
      summary: { blocker: 0, warning: 0, note: 0, accepted: 0 },
    }));
    const { rows } = makeBoard('kelp', title, profiles, {
      readings,
      inventories: [],
      now: '2026-06-01T12:00:00Z',
    });
    return rows.flatMap(({ placement, cells }) =>
      placement === null ? [] : cells.map(({ build }) => build),
    );
  };

  it('does not show by itself that a build uses a placement', () => {
    const platforms = Object.keys(ids).sort();
    expect(missing(files).sort()).toEqual(platforms);
    expect(missing(wired).sort()).toEqual(platforms);
    expect(new Set(builds(wired))).toEqual(new Set(['absent']));
  });

  it('counts as soon as code names the placement', () => {
    const used = { ...wired, ...Object.fromEntries(code) };
    expect(missing(used)).toEqual([]);
    expect(new Set(builds(used))).toEqual(new Set(['agrees']));
  });
});
