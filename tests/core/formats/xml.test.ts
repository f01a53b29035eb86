import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readStrings } from '../../../src/core/formats/android-resources/read.js';
import { removeEntry, setString } from '../../../src/core/formats/plist/edit.js';
import { plistText, readPlist, topEntries } from '../../../src/core/formats/plist/read.js';
import {
  appendChild,
  insertAfter,
  insertBefore,
  removeElement,
  setAttribute,
} from '../../../src/core/formats/xml/edit.js';
import { escapeXml } from '../../../src/core/text/escape-xml.js';
import { attribute, descendants, elements, prefixOf, textOf } from '../../../src/core/formats/xml/query.js';
import { maxXmlDepth, readXml } from '../../../src/core/formats/xml/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { plist } from '../../support/trees.js';

const problemsOf = (text: string) =>
  readXml(text).problems.map(({ message, start }) => ({ message, at: start }));

describe('reading XML', () => {
  it('gives the place of everything', () => {
    const text = `<?xml version="1.0"?>\n<a x="1" y='&lt;2'>t<!-- c --><b/><![CDATA[<raw>]]></a>\n`;
    const { root, problems } = readXml(text);
    expect(problems).toEqual([]);
    expect(text.slice(root!.start, root!.end)).toBe(text.slice(22, -1));
    expect(
      root!.attributes.map(({ name, value, valueSpan }) => [
        name,
        value,
        text.slice(valueSpan.start, valueSpan.end),
      ]),
    ).toEqual([
      ['x', '1', '1'],
      ['y', '<2', '&lt;2'],
    ]);
    expect(root!.children.map((child) => [child.type, text.slice(child.start, child.end)])).toEqual([
      ['text', 't'],
      ['comment', '<!-- c -->'],
      ['element', '<b/>'],
      ['text', '<![CDATA[<raw>]]>'],
    ]);
  });

  it.each([
    ['<a><b></a>', 'The element <b> is not closed before </a>.', 3],
    ['<a>', 'The element <a> is never closed.', 0],
    ['<a></b></a>', 'The end tag </b> closes nothing.', 3],
    ['<a x=1/>', 'The value of x is not in quotes.', 5],
    ['<a x/>', 'The attribute x has no value.', 3],
    ['<a x="1" x="2"/>', 'The attribute x is given twice.', 9],
    ['<a x="1<b/></a>', 'The value of x has no closing quote.', 5],
    ['<a>1 & 2</a>', 'This "&" begins no reference; written as text it must be "&amp;".', 5],
    ['<a/><b/>', 'There is a second root element, <b>.', 4],
    ['<a/>text', 'There is text outside the root element.', 4],
    ['<!-- never', 'This comment is never closed.', 0],
    ['', 'There is no root element.', 0],
    ['<a>1 < 2</a>', 'This "<" begins no tag; written as text it must be "&lt;".', 5],
    ['<!DOCTYPE a [ <!ENTITY x "y"> ', 'This document type declaration is never closed.', 0],
  ])('reports the fault in %j', (text, message, at) => {
    expect(problemsOf(text)[0]).toEqual({ message, at });
  });

  it('never expands entities: a bomb stays as small as it is written', () => {
    const levels = Array.from({ length: 12 }, (_, i) => `<!ENTITY l${i + 1} "${`&l${i};`.repeat(10)}">`).join(
      '',
    );
    const { root, problems } = readXml(`<!DOCTYPE a [<!ENTITY l0 "boom">${levels}]><a>&l12;</a>`);
    expect(problems).toEqual([]);
    expect(textOf(root!)).toBe('&l12;');
  });

  it('bounds nesting', () => {
    const deep = '<a>'.repeat(100_000);
    const { problems } = readXml(deep);
    expect(problems[0]!.message).toContain(`more than ${maxXmlDepth} deep`);
  });

  it('reads anything without failing', () => {
    const pieces = fc.array(
      fc.constantFrom(
        '<a',
        '>',
        '</a>',
        '/>',
        ' x="',
        '"',
        "'",
        '<!--',
        '-->',
        '<![CDATA[',
        ']]>',
        '&',
        ';',
        '<!DOCTYPE',
        '[',
        ']',
        '<?',
        '?>',
        't',
        '\n',
      ),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(pieces, (parts) => {
        const text = parts.join('');
        const { root, problems } = readXml(text);
        for (const { start, end } of problems)
          expect(0 <= start && start <= end && end <= text.length).toBe(true);
        if (root)
          for (const element of descendants(root)) expect(element.start).toBeLessThanOrEqual(element.end);
      }),
      { numRuns: 500 },
    );
  });

  it('finds the prefix of a namespace, whatever it is called', () => {
    const { root } = readXml('<m xmlns:droid="urn:x"><a droid:name="1"/></m>');
    expect(prefixOf(root!, 'urn:x', 'android')).toBe('droid');
    expect(prefixOf(root!, 'urn:y', 'android')).toBe('android');
    expect(attribute(elements(root!)[0]!, 'droid:name')?.value).toBe('1');
  });
});

describe('editing XML', () => {
  const text = '<m>\n    <app>\n        <one/>\n    </app>\n</m>\n';
  const app = (source: string) => elements(readXml(source).root!, 'app')[0]!;

  it('appends a child, indented as its siblings', () => {
    expect(applyEdits(text, appendChild(text, app(text), ['<two', '  x="1" />'], '\n'))).toBe(
      '<m>\n    <app>\n        <one/>\n        <two\n            x="1" />\n    </app>\n</m>\n',
    );
  });

  it('opens an element that closes itself', () => {
    const closed = '<m>\n  <app/>\n</m>\n';
    expect(applyEdits(closed, appendChild(closed, app(closed), ['<two/>'], '\n'))).toBe(
      '<m>\n  <app>\n    <two/>\n  </app>\n</m>\n',
    );
  });

  it.each(['<app/>', '<app />', '<app></app>', '<app><one/></app>'])(
    'takes several additions that know nothing of each other: %s',
    (element) => {
      const source = `<m>\n  ${element}\n</m>\n`;
      const added = ['<two/>', '<three/>'].flatMap((line) => appendChild(source, app(source), [line], '\n'));
      const once = [...new Map(added.map((edit) => [JSON.stringify(edit), edit])).values()];
      const one = element.includes('one') ? '<one/>' : '';
      expect(applyEdits(source, once)).toBe(`<m>\n  <app>${one}\n    <two/>\n    <three/>\n  </app>\n</m>\n`);
    },
  );

  it('takes an element out with its line, and only that', () => {
    const one = elements(app(text))[0]!;
    expect(applyEdits(text, [removeElement(text, one)])).toBe('<m>\n    <app>\n    </app>\n</m>\n');
    const inline = '<m><app><one/><two/></app></m>';
    expect(applyEdits(inline, [removeElement(inline, elements(app(inline))[0]!)])).toBe(
      '<m><app><two/></app></m>',
    );
  });

  it('adds lines before and after an element', () => {
    expect(applyEdits(text, [insertBefore(text, app(text), ['<p/>'], '\n')])).toContain(
      '<m>\n    <p/>\n    <app>',
    );
    expect(applyEdits(text, [insertAfter(text, elements(app(text))[0]!, ['<p/>'], '\n')])).toContain(
      '        <one/>\n        <p/>\n    </app>',
    );
  });

  it('keeps tabs, CRLF and quotes', () => {
    const odd = "<m>\r\n\t<app>\r\n\t\t<one x='1'/>\r\n\t</app>\r\n</m>";
    const one = elements(app(odd))[0]!;
    expect(applyEdits(odd, setAttribute(one, 'x', '2'))).toBe(
      "<m>\r\n\t<app>\r\n\t\t<one x='2'/>\r\n\t</app>\r\n</m>",
    );
    expect(applyEdits(odd, appendChild(odd, app(odd), ['<two/>'], '\r\n'))).toBe(
      "<m>\r\n\t<app>\r\n\t\t<one x='1'/>\r\n\t\t<two/>\r\n\t</app>\r\n</m>",
    );
  });

  it('sets an attribute so that it reads back as it was given', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 20 }).map((value) => value.replace(/[\0\r\n\t]/g, '')),
        (value) => {
          const source = '<m><app x="0"/></m>';
          const edited = applyEdits(source, setAttribute(app(source), 'x', value));
          expect(attribute(app(edited), 'x')?.value).toBe(value);
          expect(readXml(edited).problems).toEqual([]);
          expect(setAttribute(app(edited), 'x', value)).toEqual([]);
        },
      ),
    );
    expect(escapeXml('<&">')).toBe('&lt;&amp;&quot;&gt;');
  });
});

describe('property lists', () => {
  const source = plist(
    '\t<key>A</key>\n\t<string>one</string>\n\t<key>B</key>\n\t<array>\n\t\t<true/>\n\t\t<integer>3</integer>\n\t</array>',
  );

  it('are read with the place of every key', () => {
    const list = readPlist(source);
    expect(list.problems).toEqual([]);
    expect(
      topEntries(list).map(({ key, value, start, end }) => [
        key,
        plistText(value),
        source.slice(start, start + 5),
        end > start,
      ]),
    ).toEqual([
      ['CFBundleIdentifier', '$(PRODUCT_BUNDLE_IDENTIFIER)', '<key>', true],
      ['A', 'one', '<key>', true],
      ['B', '2 items', '<key>', true],
    ]);
  });

  it.each([
    [plist('\t<string>x</string>'), 'There is a <string> without a key before it.'],
    [plist('\t<key>A</key>\n\t<key>B</key>\n\t<true/>'), 'The key A has no value.'],
    [plist('\t<key>A</key>\n\t<text>x</text>'), 'A property list has no element <text>.'],
    ['<plist/>', 'The property list is empty.'],
    ['<dict/>', 'The root element is <dict>, not <plist>.'],
  ])('report what is wrong', (text, message) => {
    expect(readPlist(text).problems.map((problem) => problem.message)).toContain(message);
  });

  it('take a new value in place, or a new key at the end, and nothing else changes', () => {
    const root = readPlist(source).root!;
    const changed = applyEdits(source, setString(source, root, 'A', 'two', '\n'));
    expect(changed).toBe(source.replace('<string>one</string>', '<string>two</string>'));
    const added = applyEdits(source, setString(source, root, 'C', 'x', '\n'));
    expect(added).toBe(source.replace('\t</array>\n', '\t</array>\n\t<key>C</key>\n\t<string>x</string>\n'));
    expect(setString(added, readPlist(added).root!, 'C', 'x', '\n')).toEqual([]);
  });

  it('lose a key with its value and its lines', () => {
    const entry = topEntries(readPlist(source)).find(({ key }) => key === 'A')!;
    expect(applyEdits(source, [removeEntry(source, entry)])).toBe(
      source.replace('\t<key>A</key>\n\t<string>one</string>\n', ''),
    );
  });
});

describe('string resources', () => {
  it.each([
    ['  a\n   b ', 'a b'],
    ['"  a  "', 'a'],
    ["it\\'s", "it's"],
    ['a\\nb', 'a\nb'],
    ['&lt;b&gt;', '<b>'],
  ])('are read as the app sees them: %j', (raw, value) => {
    expect(readStrings(`<resources><string name="x">${raw}</string></resources>`).strings[0]).toMatchObject({
      name: 'x',
      value,
    });
  });

  it('are found as items too, and never outside resources', () => {
    expect(
      readStrings('<resources><item type="string" name="x">v</item><color name="y">#fff</color></resources>')
        .strings,
    ).toHaveLength(1);
    expect(readStrings('<menu><string name="x">v</string></menu>').strings).toEqual([]);
  });
});
