import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { readVast } from '../../../../src/core/formats/vast/read.js';
import { randomFrom } from '../../../support/readers.js';
import { rounds } from '../../../support/torture.js';
import { root } from '../../../support/trees.js';
import { inline, node, tag, vast, wrapper, xml, type Node } from '../../../support/vast.js';

const folder = mkdtempSync(join(tmpdir(), 'syndexa-vast-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const schema = join(root, 'tests/fixtures/vast-4.2.xsd');

/** What xmllint says of some documents by the schema of VAST 4.2: whether each is valid. */
function judged(documents: readonly string[]): boolean[] {
  const files = documents.map((text, index) => {
    const file = join(folder, `${index}.xml`);
    writeFileSync(file, text);
    return file;
  });
  const { stderr } = spawnSync('xmllint', ['--noout', '--nonet', '--schema', schema, ...files], {
    encoding: 'utf8',
    maxBuffer: 100_000_000,
  });
  const said = new Map(
    [...stderr.matchAll(/^(\S+\.xml) (validates|fails to validate)$/gm)].map(([, file, what]) => [
      file,
      what,
    ]),
  );
  return files.map((file) => said.get(file) === 'validates');
}

const walk = (from: Node): Node[] => [from, ...from.children.flatMap(walk)];
const pick = <Item>(items: readonly Item[], random: () => number): Item => {
  const found = items[Math.floor(random() * items.length)];
  if (found === undefined) throw new Error('There is nothing to pick.');
  return found;
};

/** One change somewhere in a document, of those that people and servers make. */
function changed(document: Node, random: () => number): { change: string; document: Node } {
  const copy = structuredClone(document);
  const parents = walk(copy).filter(({ children }) => children.length > 0);
  const leaves = walk(copy).filter(({ children, text }) => children.length === 0 && text !== '');
  const attributed = walk(copy).filter(({ attributes }) => Object.keys(attributes).length > 0);
  const parent = pick(parents, random);
  const at = Math.floor(random() * parent.children.length);
  const leaf = pick(leaves, random);
  const holder = pick(attributed, random);
  const attribute = pick(Object.keys(holder.attributes), random);
  const changes: Record<string, () => void> = {
    'an element is missing': () => void parent.children.splice(at, 1),
    'an element is there twice': () =>
      void parent.children.splice(at, 0, structuredClone(pick([parent.children[at]!], random))),
    'an element is misspelt': () => void (parent.children[at]!.name += 's'),
    'an attribute is missing': () => void delete holder.attributes[attribute],
    'an attribute is foreign': () => void (holder.attributes.colour = 'red'),
    'a value is of another kind': () =>
      void (holder.attributes[attribute] = pick(['', 'a lot', '-1', 'true', '7', '25%'], random)),
    'a text is of another kind': () =>
      void (leaf.text = pick(['', 'soon', '00:00:07', '12', 'ads.example/x', 'https://a b'], random)),
    'nothing but letters changes': () => void (leaf.text = `${leaf.text}`),
  };
  const change = pick(Object.keys(changes), random);
  changes[change]?.();
  return { change, document: copy };
}

describe('documents of VAST 4.2', () => {
  it('are judged as a schema of others judges them, whatever became of them', () => {
    const random = randomFrom(42);
    const bases = [
      vast([inline({ skip: '00:00:05', sequence: 1 })]),
      vast([wrapper('https://next.example/tag')]),
      vast([inline(), wrapper('https://next.example/tag', { followAdditionalWrappers: 'false' })]),
    ];
    const cases = [
      ...bases.map((document) => ({ change: 'none', document })),
      ...Array.from({ length: rounds(400, 20_000) }, () => changed(pick(bases, random), random)),
    ]
      .map(({ change, document }) => ({ change, text: xml(document) }))
      // What a schema cannot say: that one event needs an attribute.
      .filter(({ text }) => !text.includes('event="progress">'));
    const theirs = judged(cases.map(({ text }) => text));
    const told = { valid: 0, invalid: 0 };
    for (const [index, { change, text }] of cases.entries()) {
      const ours = readVast(text).problems;
      told[ours.length === 0 ? 'valid' : 'invalid'] += 1;
      expect([change, text, ours.length === 0], ours.map(({ message }) => message).join('\n')).toEqual([
        change,
        text,
        theirs[index],
      ]);
    }
    expect(Math.min(told.valid, told.invalid)).toBeGreaterThan(30);
  });

  it('have the schema that the demo keeps to', () => {
    const file = join(root, 'demo/tags/evening-tide.xml');
    expect(() =>
      execFileSync('xmllint', ['--noout', '--schema', schema, file], { stdio: 'pipe' }),
    ).not.toThrow();
  });
});

const problemsOf = (text: string) =>
  readVast(text).problems.map(({ severity, line, message }) => `${severity} ${line} ${message}`);

describe('what is wrong', () => {
  it('is told with its line, what is meant, and the section', () => {
    const text = tag(inline())
      .replace('firstQuartile', 'firstquartile')
      .replace('video/mp4" width', 'video/mp4" breadth');
    const { problems } = readVast(text);
    const lines = text.split('\n');
    expect(problems).toMatchObject([
      {
        severity: 'warning',
        section: '3.14.1',
        message: expect.stringContaining('"firstquartile"') as string,
      },
      { severity: 'error', section: '3.9.1', message: '<MediaFile> has no width.' },
      { severity: 'warning', message: 'VAST 4.2 has no breadth of <MediaFile>.' },
    ]);
    for (const { line, column } of problems)
      expect(lines[line - 1]?.slice(column - 1)).toMatch(/^(firstq|<Media|breadth)/);
  });

  it('is what the version says, and no other', () => {
    const old = xml(vast([inline()], '2.0'));
    expect(problemsOf(old).join('\n')).toContain(
      '<ViewableImpression> came with VAST 4.0, but the document says 2.0.',
    );
    const plain = xml(
      vast(
        [
          node('Ad', {}, [
            node('InLine', {}, [
              node('AdSystem', {}, 'T'),
              node('AdTitle', {}, 'E'),
              node('Impression', {}, 'https://a.example/i'),
              node('Creatives', {}, [
                node('Creative', {}, [
                  node('Linear', {}, [
                    node('Duration', {}, '00:00:10'),
                    node('TrackingEvents', {}, [
                      node('Tracking', { event: 'fullscreen' }, 'https://a.example/f'),
                    ]),
                    node('MediaFiles', {}, [
                      node(
                        'MediaFile',
                        { delivery: 'progressive', type: 'video/mp4', width: '1', height: '1' },
                        'https://a.example/m.mp4',
                      ),
                    ]),
                  ]),
                ]),
              ]),
            ]),
          ]),
        ],
        '2.0',
      ),
    );
    expect(problemsOf(plain)).toEqual([]);
    const later = problemsOf(plain.replace('"2.0"', '"4.1"'));
    expect(later).toEqual([
      'error 3 <InLine> has no <AdServingId>.',
      'error 8 <Creative> has no <UniversalAdId>.',
      'warning 12 VAST 4.1 has no event fullscreen: it is one of 2.0 to 3.0.',
    ]);
    expect(readVast(plain.replace('"2.0"', '"3.0.1"')).version).toBe('3.0');
  });

  it.each([
    ['<html><body>Not here</body></html>', 101, 'is not a VAST document'],
    ['<VideoAdServingTemplate/>', 102, 'VAST 1'],
    ['<VAST version="9.1"/>', 102, '"9.1"'],
    ['<VAST/>', 102, 'does not say which version'],
    ['<VAST version="4.2"><Ad></VAST>', 100, ''],
    ['', 100, 'no root element'],
    [
      '<!DOCTYPE a [<!ENTITY b "x">]><VAST version="4.2"><Ad>&b;</Ad></VAST>',
      101,
      'no <InLine> or <Wrapper>',
    ],
  ])('%s ends with the code of the standard', (text, error, message) => {
    const read = readVast(text);
    expect(read.error).toBe(error);
    expect(read.problems.map((one) => one.message).join('\n')).toContain(message);
    expect(read.problems.every(({ line, column, fix }) => line > 0 && column > 0 && fix !== '')).toBe(true);
  });

  it('is counted, not listed, beyond what anybody reads', () => {
    const many = tag(...Array.from({ length: 150 }, () => node('Ad')));
    const { ads, problems } = readVast(many);
    expect(ads).toEqual([]);
    expect(problems.filter(({ message }) => message.startsWith('<Ad>'))).toHaveLength(150);
    expect(problems.map(({ message }) => message)).toContain(
      'There are 150 ads; only the first 100 are read.',
    );
    const more = readVast(tag(...Array.from({ length: 900 }, () => node('Ad')))).problems;
    expect(more.length).toBeLessThan(210);
    expect(more.map(({ message }) => message).join('\n')).toContain('There are 700 more problems');
  });
});
