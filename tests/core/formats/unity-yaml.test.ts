import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addUnityEntry, removeUnityEntry, setUnityValue } from '../../../src/core/formats/unity-yaml/edit.js';
import {
  maxUnityLength,
  readUnityYaml,
  unityNode,
  type UnityNode,
} from '../../../src/core/formats/unity-yaml/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';

const settings = `%YAML 1.1
%TAG !u! tag:unity3d.com,2011:
--- !u!129 &1
PlayerSettings:
  productName: 'It''s: kelp'
  defaultCursor: {fileID: 0}
  empty:
  scriptingDefineSymbols: {}
  applicationIdentifier:
    Android: example.brine.kelp
    Windows Store Apps: kelp
  items:
  - plain
  - m_Target: Android
    m_Apis: 150000000b000000
  folded: "one
    two"
--- !u!114 &11400000 stripped
MonoBehaviour:
  m_Name: Kelp
`;
const crlf = settings.replace(/\n/g, '\r\n');

const at = (text: string, ...way: string[]): UnityNode => {
  const node = unityNode(readUnityYaml(text), way);
  if (!node) throw new Error(`There is no ${way.join('.')}.`);
  return node;
};

describe("Unity's YAML", () => {
  it.each([
    ['plain', settings],
    ['CRLF', crlf],
  ])('gives every value with its place: %s', (_, text) => {
    expect(readUnityYaml(text).problems).toEqual([]);
    expect(readUnityYaml(text).objects.map(({ key }) => key)).toEqual(['PlayerSettings', 'MonoBehaviour']);
    expect(at(text, 'PlayerSettings', 'productName').value).toBe("It's: kelp");
    expect(at(text, 'PlayerSettings', 'folded').value).toBe('one two');
    expect(at(text, 'PlayerSettings', 'applicationIdentifier', 'Windows Store Apps').value).toBe('kelp');
    const [plain, map] = at(text, 'PlayerSettings', 'items').children;
    expect(plain?.value).toBe('plain');
    expect(map?.children.map(({ key, value }) => [key, value])).toEqual([
      ['m_Target', 'Android'],
      ['m_Apis', '150000000b000000'],
    ]);
    const id = at(text, 'PlayerSettings', 'applicationIdentifier', 'Android');
    expect(text.slice(id.valueSpan.start, id.valueSpan.end)).toBe('example.brine.kelp');
  });

  it.each([
    ['plain', settings, '\n'],
    ['CRLF', crlf, '\r\n'],
  ])('takes entries in and gives them back: %s', (_, text, eol) => {
    for (const name of ['scriptingDefineSymbols', 'applicationIdentifier']) {
      const added = applyEdits(
        text,
        addUnityEntry(text, at(text, 'PlayerSettings', name), 'iPhone', 'A;B', eol),
      );
      expect(at(added, 'PlayerSettings', name, 'iPhone').value).toBe('A;B');
      const map = at(added, 'PlayerSettings', name);
      const back = removeUnityEntry(added, map, at(added, 'PlayerSettings', name, 'iPhone'));
      expect(applyEdits(added, [back])).toBe(text);
    }
  });

  it('writes values so that they are read as they are meant', () => {
    for (const value of ['plain', "it's", 'a: b', '-1', '', '#x', '{a}', ' blank ', 'a #b']) {
      for (const key of ['productName', 'empty']) {
        const after = applyEdits(
          settings,
          setUnityValue(settings, at(settings, 'PlayerSettings', key), value),
        );
        expect(at(after, 'PlayerSettings', key).value).toBe(value);
        expect(readUnityYaml(after).problems).toEqual([]);
      }
    }
  });

  it('says what it cannot read, and reads on', () => {
    const { problems, objects } = readUnityYaml('A:\n  b: 1\n<<<<<<< ours\n  [what\n=======\n  c: 2\n');
    expect(problems.map(({ message }) => message)).toEqual([
      'There is an unresolved merge conflict here.',
      'This line is neither a key nor a value.',
      'There is an unresolved merge conflict here.',
    ]);
    expect(objects[0]?.children.map(({ key }) => key)).toEqual(['b', 'c']);
    expect(readUnityYaml(' '.repeat(maxUnityLength + 1)).problems).toHaveLength(1);
  });

  it('never throws, and every place lies in the text', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...Array.from('aB:- \n\r{}[]#&*!\'"%,0')) }), (text) => {
        const check = (node: UnityNode): void => {
          expect(node.start).toBeLessThanOrEqual(node.valueSpan.start);
          expect(node.valueSpan.end).toBeLessThanOrEqual(node.end);
          expect(node.end).toBeLessThanOrEqual(text.length);
          node.children.forEach(check);
        };
        readUnityYaml(text).objects.forEach(check);
      }),
      { numRuns: 500 },
    );
    expect(readUnityYaml('- '.repeat(5000)).objects).toHaveLength(1);
  });
});
