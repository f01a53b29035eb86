import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { languageNamed, type LanguageName } from '../../../src/core/languages/index.js';
import { preprocessed } from '../../../src/core/syntax/preprocessor.js';
import { readSource } from '../../../src/core/code/read-source.js';
import type { SourceReading } from '../../../src/core/code/source-reading.js';
import { syntax } from '../../support/trees.js';

const read = (id: string, text: string): SourceReading =>
  readSource(languageNamed(id as LanguageName).dialects[0]!.syntax, text, syntax)!;

/** The same small screen in four languages: what is read of it must be the same. */
const screens: Record<string, string> = {
  kotlin: `class Screen : Listener {
  private var page: Page? = null
  // "comment"
  private val unit = "UNIT"
  override fun onResume() {
    super.onResume()
    if (page?.ready == true) { page?.show(this) }
    if (!allowed) return
    Page.load(this, unit, "direct")
    Sdk.devices = "dev"
  }
  override fun onFailed(code: Int) { }
  override fun onClosed() { next() }
}`,
  java: `class Screen implements Listener {
  private Page page;
  // "comment"
  private final String unit = "UNIT";
  @Override public void onResume() {
    super.onResume();
    if (page != null && page.ready()) { page.show(this); }
    if (!allowed) { return; }
    Page.load(this, unit, "direct");
    Sdk.devices = "dev";
  }
  public void onFailed(int code) { }
  public void onClosed() { next(); }
}`,
  swift: `class Screen: UIViewController {
  private var page: Page?
  // "comment"
  private let unit = "UNIT"
  override func onResume() {
    super.onResume()
    if page?.ready == true { page?.show(self) }
    guard allowed else { return }
    Page.load(self, unit, "direct")
    Sdk.devices = "dev"
  }
  func onFailed(_ code: Int) { }
  func onClosed() { next() }
}`,
  'objective-c': `@interface Screen : UIViewController
@property (nonatomic, strong) Page *page;
@end
static NSString * const unit = @"UNIT";
// @"comment"
@implementation Screen
- (void)onResume {
  [super onResume];
  if (self.page.ready) { [self.page show:self]; }
  if (!allowed) { return; }
  [Page load:self unit:unit more:@"direct"];
  Sdk.devices = @"dev";
}
- (void)onFailed:(int)code { }
- (void)onClosed { next(); }
@end`,
  csharp: `class Screen : MonoBehaviour {
  private Page page;
  // "comment"
  private const string unit = "UNIT";
  void onResume() {
    base.onResume();
    if (page?.ready == true) { page?.show(this); }
    if (!allowed) return;
    Page.load(this, unit, more: "direct");
    Sdk.devices = "dev";
  }
  void onFailed(int code) { }
  void onClosed() => next();
}`,
};

describe.each(Object.keys(screens))('%s', (id) => {
  const reading = read(id, screens[id]!);
  const call = (name: string) => reading.calls.find((found) => found.name === name)!;

  it('gives string literals with what they flow into, and none of a comment', () => {
    const flows = reading.strings.map(({ value, flow }) => [
      value,
      flow?.into,
      flow?.into === 'constant' ? flow.name : flow?.of,
    ]);
    expect(flows).toEqual([
      ['UNIT', 'constant', 'unit'],
      ['direct', 'argument', 'Page.load'],
      ['dev', 'constant', 'Sdk.devices'],
    ]);
    for (const { value, start, end } of reading.strings) expect(screens[id]!.slice(start, end)).toBe(value);
  });

  it('names a variable’s calls by its type, with class, method and conditions', () => {
    const show = call('Page.show');
    expect(show.context).toMatchObject({ type: 'Screen', method: 'onResume', methods: ['onResume'] });
    expect(show.context.conditions).toHaveLength(1);
    expect(show.context.conditions[0]).toMatchObject({ holds: true, text: expect.stringContaining('ready') });
  });

  it('knows after an early return what held', () => {
    expect(call('Page.load').context.conditions).toMatchObject([
      { text: expect.stringContaining('allowed'), holds: id === 'swift' },
    ]);
  });

  it('gives the arguments of a call, and constants', () => {
    const values = call('Page.load').arguments.flatMap(({ values: given }) => given);
    expect(values).toContainEqual(expect.objectContaining({ is: 'name', name: 'unit' }));
    expect(values).toContainEqual(expect.objectContaining({ is: 'text', value: 'direct' }));
    expect(reading.constants.get('unit')).toMatchObject([{ is: 'text', value: 'UNIT' }]);
  });

  it('tells callbacks that do nothing from those that do', () => {
    const methods = reading.methods.filter(({ name }) => name !== 'onResume');
    expect(methods.map(({ name, empty }) => [name, empty])).toEqual([
      ['onFailed', true],
      ['onClosed', false],
    ]);
  });

  it('reads a setting as a call', () => {
    expect(call('Sdk.devices').arguments[0]?.values[0]).toMatchObject({ is: 'text', value: 'dev' });
  });

  it('never fails on what is broken: bytes dropped, doubled, turned over', () => {
    const text = screens[id]!;
    fc.assert(
      fc.property(
        fc.nat(text.length - 1),
        fc.nat(40),
        fc.constantFrom('drop', 'double', 'turn'),
        (at, length, how) => {
          const piece = text.slice(at, at + length);
          const changed =
            how === 'drop' ? '' : how === 'double' ? piece + piece : Array.from(piece).reverse().join('');
          const found = read(id, text.slice(0, at) + changed + text.slice(at + length));
          expect(found.strings.length).toBeLessThan(50);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('values of two branches', () => {
  it.each([
    ['kotlin', 'val id = if (BuildConfig.DEBUG) "A" else "B"'],
    ['java', 'class A { String id = BuildConfig.DEBUG ? "A" : "B"; }'],
    ['swift', 'let id = DEBUG_MODE ? "A" : "B"'],
    ['objective-c', 'NSString *id = flag ? @"A" : @"B";'],
    ['csharp', 'class A { readonly string id = Debug.isDebugBuild ? "A" : "B"; }'],
  ])('%s', (id, text) => {
    const { strings, constants } = read(id, text);
    expect(strings.map(({ value, context }) => [value, context.conditions[0]?.holds])).toEqual([
      ['A', true],
      ['B', false],
    ]);
    expect(constants.get('id')).toMatchObject([{ value: 'A' }, { value: 'B' }]);
  });
});

describe('callbacks inside methods', () => {
  it.each([
    [
      'kotlin',
      'class S { fun go() { if (x) { Page.load(c, object : L { override fun onClosed() { page() } }) } } }',
    ],
    [
      'java',
      'class S { void go() { if (x) { Page.load(c, new L() { public void onClosed() { page(); } }); } } }',
    ],
    ['csharp', 'class S { void go() { if (x) { ad.onClosed += () => { page(); }; } } }'],
  ])('%s: run on their own, under no condition of the method around them', (id, text) => {
    const inner = read(id, text).calls.find(({ name }) => name === 'page');
    expect(inner?.context).toMatchObject({ methods: ['go', 'onClosed'], conditions: [] });
  });
});

describe('C#', () => {
  it('is read in every way through its conditions, each thing once and in its place', () => {
    const text = `class A {
  const string Id =
#if ANDROID
    "A"
#if DEBUG
    + "B"
#endif
#elif IOS
    "C"
#else
    "D"
#endif
    ;
#if DEBUG
  void Only() { Load("E"); }
#endif
  void Always() { Load(Id); }
}`;
    const { strings, calls, constants, methods } = read('csharp', text);
    expect(strings.map(({ value }) => value)).toEqual(['A', 'B', 'C', 'D', 'E']);
    for (const { value, start, end } of strings) expect(text.slice(start, end)).toBe(value);
    expect(calls.map(({ name }) => name)).toEqual(['Load', 'Load']);
    expect(methods.map(({ name }) => name)).toEqual(['Only', 'Always']);
    expect(constants.get('A.Id')?.flatMap((value) => (value.is === 'text' ? value.value : []))).toEqual([
      'C',
      'D',
    ]);
  });

  it('knows what is made, what is handed over to an event, and what attributes say', () => {
    const { calls, methods } = read(
      'csharp',
      `[MetaData("key", Value = "v")]
class S {
  async void Go() {
    var ad = await Page.LoadAsync("u");
    ad.OnClosed += HandleClosed;
    var other = new Page { OnFailed = reason => { } };
    ad.Show();
    other?.Hide();
  }
}
[assembly: Uses(Permission.Internet)]
`,
    );
    const names = calls.map(({ name }) => name);
    expect(names).toEqual(
      expect.arrayContaining(['MetaData', 'Page.LoadAsync', 'Page.Show', 'Page.Hide', 'Uses']),
    );
    expect(methods.map(({ name, empty }) => [name, empty])).toEqual([
      ['Go', false],
      ['OnClosed', false],
      ['OnFailed', true],
    ]);
    expect(calls.find(({ name }) => name === 'MetaData')).toMatchObject({
      context: { type: 'S' },
      arguments: [{ label: null }, { label: 'Value', values: [{ value: 'v' }] }],
    });
  });

  it.each([
    [
      'p switch { X.A => "1", X.B or X.C => "2", _ => "3" }',
      ['p == X.A', 'p == X.B || p == X.C', '!(p == X.A || p == X.B || p == X.C)'],
    ],
  ])('weighs the arms of a switch: %s', (text, conditions) => {
    const { strings } = read('csharp', `class A { string b = ${text}; }`);
    expect(strings.map(({ context }) => context.conditions[0]?.text)).toEqual(conditions);
  });

  it('blanks what another way through the conditions holds, and moves nothing', () => {
    const sign = fc.constantFrom(
      '#if A',
      '#elif B',
      '#else',
      '#endif',
      '#region x',
      'int a;',
      '  #  if C',
      '',
    );
    fc.assert(
      fc.property(fc.array(sign, { maxLength: 30 }), fc.constantFrom('\n', '\r\n'), (lines, eol) => {
        const text = lines.join(eol);
        const views = preprocessed(text);
        expect(views.length).toBeGreaterThan(0);
        for (const view of views) {
          expect(view.length).toBe(text.length);
          for (const [at, char] of Array.from(view).entries()) if (char !== ' ') expect(char).toBe(text[at]);
          expect(view).not.toMatch(/#/);
        }
        // Whatever stands in a branch is seen in one of the views.
        const seen = Array.from(text, (_, at) => views.some((view) => view[at] !== ' '));
        if (views.length < 12)
          for (const found of text.matchAll(/int a;/g)) expect(seen[found.index]).toBe(true);
      }),
    );
  });
});

/** Ways to give an object another name before it is used. */
const aliased: [string, string][] = [
  [
    'kotlin',
    'class S { private var page: Page? = null\n fun go() { val now = page ?: return\n now.show() } }',
  ],
  [
    'kotlin',
    'class S { private var page: Page? = null\n fun go() { val now = page\n if (now != null) now.show() } }',
  ],
  ['kotlin', 'class S { private var page: Page? = null\n fun go() { page?.let { now -> now.show() } } }'],
  [
    'java',
    'class S { private Page page; void go() { final var now = this.page; if (now != null) now.show(); } }',
  ],
  [
    'swift',
    'class S { private var page: Page?\n func go() { guard let now = page else { return }\n now.show() } }',
  ],
  ['swift', 'class S { private var page: Page?\n func go() { if let now = self.page { now.show() } } }'],
  [
    'swift',
    'class S { private var page: Page?\n func go() { guard let page, page.isReady else { return }\n page.show() } }',
  ],
  [
    'objective-c',
    '@interface S : NSObject\n@property (nonatomic) Page *page;\n@end\n@implementation S\n- (void)go { Page *now = self.page; [now show]; }\n@end',
  ],
  ['dart', 'class S { Page? _page; void go() { final now = _page; if (now != null) now.show(); } }'],
  ['dart', 'class S { Page? _page; void go() { if (_page case final now?) now.show(); } }'],
  [
    'typescript',
    'class S { page: Page | null = null; go() { const now = this.page; if (now) now.show(); } }',
  ],
  ['typescript', 'class S { page?: Page; go() { const now = this.page!; now.show(); } }'],
  ['csharp', 'class S { Page? page; void Go() { var now = page; if (now != null) now.show(); } }'],
  ['csharp', 'class S { Page? page; void Go() { if (page is { } now) now.show(); } }'],
  ['csharp', 'class S { Page? page; void Go() { if (page is Page now) now.show(); } }'],
];
describe('an object by another name', () => {
  it.each(aliased)('has its type still, in %s: %s', (id, text) => {
    expect(read(id, text).calls.map(({ name }) => name)).toContain('Page.show');
  });

  it('is not the object of a name that goes in circles', () => {
    const text = 'class S { void go() { final a = b; final b = a; a.show(); } }';
    expect(read('dart', text).calls.map(({ name }) => name)).toContain('a.show');
  });
});
