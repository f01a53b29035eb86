import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { compareSurveys } from '../../../src/core/facts/compare-surveys.js';
import type { Survey } from '../../../src/core/facts/model.js';
import { sideBySide, type Side } from '../../../src/core/facts/side-by-side.js';
import { readRoster } from '../../../src/core/roster/document.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { filesBelow, profiles, root, treeOf } from '../../support/trees.js';

const { roster } = readRoster(readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8'));

function surveyOf(id: string, files = filesBelow(join(root, 'demo', 'trees', id))): Survey {
  const title = roster?.titles[id];
  if (!title) throw new Error(`The demo has no title ${id}.`);
  return runSurvey(treeOf(files), { name: id, profiles, title: { id, title } }).survey;
}

/** What an edition of a survey carries, side by side. */
function sidesOf({ facts, unresolved }: Survey, { platform, module, variants }: Survey['editions'][number]) {
  const isMine = (item: { platform: string; module: string }) =>
    item.platform === platform && item.module === module;
  const names = variants.map(({ name }) => name);
  const own = { facts: facts.filter(isMine), unresolved: unresolved.filter(isMine) };
  return { own, names, ...sideBySide(own, names) };
}

function factsOf(side: Side) {
  return 'facts' in side ? side.facts : [];
}

describe.each(['tidewick', 'plumebook', 'kilnlog', 'orrery-drift'])('the variants of %s', (id) => {
  const survey = surveyOf(id);

  it('are side by side without losing a fact, or a variant of one', () => {
    for (const edition of survey.editions) {
      const { own, names, shared, differing } = sidesOf(survey, edition);
      const sides = [...shared, ...differing].flatMap((row) => row.sides);
      for (const fact of own.facts) {
        const holding = sides.filter((side) => factsOf(side).includes(fact));
        expect(holding).toHaveLength(1);
        expect(holding[0]?.variants).toEqual(
          expect.arrayContaining(fact.variants.filter((name) => names.includes(name))),
        );
      }
      expect(sides.flatMap(factsOf)).toHaveLength(own.facts.length);
      expect(sides.filter((side) => 'unresolved' in side).length).toBeLessThanOrEqual(own.unresolved.length);
    }
  });

  it('share what all of them carry, and differ in the rest', () => {
    for (const edition of survey.editions) {
      const { names, shared, differing } = sidesOf(survey, edition);
      for (const { sides, without } of shared) {
        expect(without).toEqual([]);
        for (const { variants } of sides) expect(variants).toEqual(names);
      }
      for (const { sides } of differing)
        expect(sides.some(({ variants }) => variants.length < names.length)).toBe(true);
    }
  });

  it('are as they were in a reading of the same tree', () => {
    expect(compareSurveys(survey, surveyOf(id))).toEqual([]);
  });
});

describe('two readings of a tree', () => {
  const files = filesBelow(join(root, 'demo', 'trees', 'tidewick'));
  const manifest = 'android/app/src/debug/AndroidManifest.xml';
  const before = surveyOf('tidewick', files);
  const edited = String(files[manifest]).replace('CH-U-204418-P4N7C2VJ', 'CH-A-204418-ZZZZ9999');
  const after = surveyOf('tidewick', { ...files, [manifest]: Buffer.from(edited) });

  it('differ in what was edited, in the variants that it is in', () => {
    const changes = compareSurveys(before, after);
    expect(changes).toMatchObject([
      {
        was: { value: 'CH-U-204418-P4N7C2VJ' },
        is: { value: 'CH-A-204418-ZZZZ9999' },
        variants: [expect.stringMatching(/ debug$/)],
      },
    ]);
  });

  it('say the same the other way round', () => {
    const there = compareSurveys(before, after).map(({ was, is, variants }) => [
      was?.value,
      is?.value,
      variants,
    ]);
    const back = compareSurveys(after, before).map(({ was, is, variants }) => [
      is?.value,
      was?.value,
      variants,
    ]);
    expect(back).toEqual(there);
  });
});
