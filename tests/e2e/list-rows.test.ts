import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { hasLists, listRows } from '../../src/core/languages/common/list-rows.js';
import { csharpPlacebook } from '../../src/core/languages/csharp/placebook.js';
import { dartPlacebook } from '../../src/core/languages/dart/placebook.js';
import { javaPlacebook } from '../../src/core/languages/java/placebook.js';
import { kotlinPlacebook } from '../../src/core/languages/kotlin/placebook.js';
import { objectiveCHeader } from '../../src/core/languages/objective-c/placebook.js';
import { swiftPlacebook } from '../../src/core/languages/swift/placebook.js';
import { typescriptPlacebook } from '../../src/core/languages/typescript/placebook.js';
import { placebookContents } from '../../src/core/placebook/contents.js';
import { Title } from '../../src/core/roster/model.js';
import { compiling } from '../support/compilers.js';
import { profileOf, profiles, root, syntax } from '../support/trees.js';

// Lists of content with ads: what placebooks of every language say at run time, held against one table of cases.

const { at, run, put } = compiling();

const settings = {
  'spot-both': { first: 2, every: 6 },
  'spot-every': { every: 3 },
  'spot-first': { first: 4 },
  'spot-close': { first: 0, every: 1 },
  'spot-late': { first: 40, every: 2 },
  'spot-plain': {},
};
const title = Title.parse({
  name: 'Kelp',
  editions: {
    android: { identifier: 'example.brine.kelp' },
    ios: { identifier: 'example.brine.kelp' },
  },
  networks: { 'cobalt-heron': {} },
  placements: Object.fromEntries(
    Object.entries(settings).map(([name, given], at) => {
      const units = {
        android: { production: `CH-U-310772-LIST000${at}` },
        ios: { production: `CH-U-310772-LIST100${at}` },
      };
      return [name, { format: 'native', settings: given, units: { 'cobalt-heron': units } }];
    }),
  ),
});
const book = (platform: 'android' | 'ios') => placebookContents(title, profiles, platform, 'test');
const shared = Object.fromEntries(
  (['android', 'ios'] as const).map((one) => [one, { test: book(one), production: book(one) }]),
);
const options = { title: 'Kelp', revision: 1 };

const lengths = [-1, 0, 1, 2, 3, 4, 5, 8, 13, 41, 60];
/** What a program prints that asks for every row, and for one before and one behind: `a` for an ad, `-` for none. */
const wanted = Object.values(settings)
  .flatMap((given) =>
    lengths.map((items) => {
      const rows = listRows(given, items);
      const shown = rows.map((row) => (row === 'ad' ? 'a' : String(row)));
      const ads = rows.filter((row) => row === 'ad').length;
      return `${ads} ${rows.length} ${['-', ...shown, '-'].join(' ')}`;
    }),
  )
  .join('\n');
const said = (text: string) =>
  text
    .trim()
    .replace(/\r/g, '')
    .split('\n')
    .map((line) => line.trim())
    .join('\n');

describe('the rows of a list', () => {
  it('hold every item once, in order, and ads where the settings say', () => {
    expect(listRows({ first: 2, every: 3 }, 6)).toEqual([0, 1, 'ad', 2, 3, 4, 'ad', 5]);
    expect(listRows({ first: 2, every: 3 }, 5)).toEqual([0, 1, 'ad', 2, 3, 4, 'ad']);
    expect(listRows({ first: 2 }, 1)).toEqual([0]);
    expect(listRows({ first: 0, every: 5 }, 0)).toEqual([]);
    for (const given of Object.values(settings))
      for (const items of lengths) {
        const rows = listRows(given, items);
        expect(rows.filter((row) => row !== 'ad')).toEqual(
          Array.from({ length: Math.max(items, 0) }, (_, at) => at),
        );
        expect(rows.some((row, at) => row === 'ad' && rows[at + 1] === 'ad')).toBe(false);
      }
  });

  it('have no helper where no placement is in a list', () => {
    const plain = { ...title, placements: {} };
    const stages = [placebookContents(plain, profiles, 'android', 'test')];
    expect([hasLists(stages), hasLists([book('android')])]).toEqual([false, true]);
  });
});

it('are the same in Java', () => {
  put({
    'Placebook.java': javaPlacebook(book('android'), { ...options, packageName: 'kelp', stage: 'test' }),
    'Main.java': `import kelp.Placebook;
public class Main {
    public static void main(String[] args) {
        for (Placebook.Placement spot : Placebook.ALL)
            for (int items : new int[] {${lengths.join(', ')}}) {
                StringBuilder line = new StringBuilder(spot.adRows(items) + " " + spot.rows(items));
                for (int row = -1; row <= spot.rows(items); row++) {
                    int item = spot.itemAt(row, items);
                    line.append(" ").append(spot.isAd(row, items) ? "a" : item < 0 ? "-" : "" + item);
                }
                System.out.println(line);
            }
    }
}
`,
  });
  run('javac', ['-Xlint:all', '-Werror', '-d', 'out', 'Placebook.java', 'Main.java']);
  expect(said(run('java', ['-cp', 'out', 'Main']))).toBe(wanted);
}, 60_000);

it('are the same in Kotlin', () => {
  put({
    'Placebook.kt': kotlinPlacebook(book('android'), { ...options, packageName: 'kelp', stage: 'test' }),
    'Main.kt': `import kelp.Placebook
fun main() {
    for (spot in Placebook.all)
        for (items in listOf(${lengths.join(', ')})) {
            val rows = (-1..spot.rows(items)).map { if (spot.isAd(it, items)) "a" else spot.itemAt(it, items)?.toString() ?: "-" }
            println("\${spot.adRows(items)} \${spot.rows(items)} \${rows.joinToString(" ")}")
        }
}
`,
  });
  run('kotlinc', ['-Werror', 'Placebook.kt', 'Main.kt', '-d', 'out']);
  expect(said(run('java', ['-cp', 'out:/usr/share/java/kotlin-stdlib.jar', 'MainKt']))).toBe(wanted);
}, 120_000);

it('are the same in TypeScript', () => {
  put({
    'src/placebook.ts': typescriptPlacebook(shared, { ...options, testCondition: 'true' }),
    'src/react-native.d.ts':
      "declare module 'react-native' {\n  export const Platform: { select<T>(of: { [name: string]: T }): T | undefined };\n}\n",
    'src/main.ts': `import { Placebook } from './placebook';
export const lines = Placebook.all.flatMap(spot => [${lengths.join(', ')}].map(items => {
  const rows = Array.from({ length: spot.rows(items) + 2 }, (_, at) => at - 1);
  return [spot.adRows(items), spot.rows(items), ...rows.map(row => spot.isAd(row, items) ? 'a' : spot.itemAt(row, items) ?? '-')].join(' ');
}));
`,
    'out/node_modules/react-native/index.js': 'exports.Platform = { select: all => all.android };\n',
  });
  const flags = [
    'strict',
    'noUncheckedIndexedAccess',
    'exactOptionalPropertyTypes',
    'noImplicitReturns',
    'noUnusedLocals',
  ];
  run(process.execPath, [
    join(root, 'node_modules/typescript/bin/tsc'),
    ...flags.map((name) => `--${name}`),
    ...'--target es2020 --module commonjs --moduleResolution node10 --ignoreDeprecations 5.0 --outDir out'.split(
      ' ',
    ),
    'src/main.ts',
    'src/react-native.d.ts',
  ]);
  const { lines } = createRequire(import.meta.url)(at('out/main.js')) as { lines: string[] };
  expect(said(lines.join('\n'))).toBe(wanted);
}, 60_000);

it('are the same in C#', () => {
  const symbols = { android: 'UNITY_ANDROID', ios: 'UNITY_IOS' };
  put({
    'Placebook.cs': csharpPlacebook(shared, { ...options, testCondition: 'true', symbols }),
    'Main.cs': `using System.Linq;
public static class Program
{
    public static void Main()
    {
        foreach (var spot in Placebook.All)
            foreach (var items in new[] { ${lengths.join(', ')} })
            {
                var rows = Enumerable.Range(-1, spot.Rows(items) + 2).Select(row =>
                    spot.IsAd(row, items) ? "a" : spot.ItemAt(row, items).HasValue ? spot.ItemAt(row, items).ToString() : "-");
                System.Console.WriteLine(spot.AdRows(items) + " " + spot.Rows(items) + " " + string.Join(" ", rows));
            }
    }
}
`,
  });
  run('mcs', [
    '-langversion:6',
    '-warnaserror',
    '-warn:4',
    '-define:UNITY_ANDROID',
    '-out:rows.exe',
    'Placebook.cs',
    'Main.cs',
  ]);
  expect(said(run('mono', ['rows.exe']))).toBe(wanted);
}, 60_000);

it('are written in Dart, Swift and Objective-C too, and parsed without a fault', () => {
  const both = { ...options, testCondition: 'DEBUG' };
  const dart = dartPlacebook(shared, { ...options, testCondition: 'kDebugMode' });
  const swift = swiftPlacebook(book('ios'), book('ios'), both);
  expect(syntax.visit('dart', dart, (tree) => tree.hasError)).toBe(false);
  expect(syntax.visit('swift', swift, (tree) => tree.hasError)).toBe(false);
  for (const text of [dart, swift, objectiveCHeader(book('ios'), book('ios'), both)])
    for (const name of ['adRows', 'rows', 'isAd', 'itemAt']) expect(text).toMatch(new RegExp(`\\b${name}`));
});

/** The adapters of the guide, by language. */
const adapters = new Map(
  [...readFileSync(join(root, 'docs/lists.md'), 'utf8').matchAll(/```(\w+)\n([\s\S]*?)```/g)].map(
    ([, language = '', text = '']) => [language, text],
  ),
);
const adapter = (language: string) => adapters.get(language) ?? '';
const moons = Title.parse({
  ...title,
  placements: { 'moon-list': { ...title.placements['spot-both'], settings: { first: 3, every: 8 } } },
});
const moonBook = (platform: 'android' | 'ios') => placebookContents(moons, profiles, platform, 'test');
const moonBooks = Object.fromEntries(
  (['android', 'ios'] as const).map((one) => [one, { test: moonBook(one), production: moonBook(one) }]),
);

describe('the adapter of the guide', () => {
  it.each([
    ['swift', 'swift'],
    ['dart', 'dart'],
    ['tsx', 'tsx'],
    ['kotlin', 'kotlin'],
    ['csharp', 'c_sharp'],
  ] as const)('in %s has a syntax tree without a fault, and asks the placebook', (language, grammar) => {
    expect(syntax.visit(grammar, adapter(language), (tree) => tree.hasError)).toBe(false);
    for (const part of [/\.rows\(/i, /\.itemAt\(/i, /HeronNative\.load/i, /\.release\(/i])
      expect(adapter(language)).toMatch(part);
  });

  it.each([
    ['kotlin', 'kotlin', 'spot.unit(Placebook.Network.COBALT_HERON)'],
    ['swift', 'swift', 'spot.unit(.cobaltHeron)'],
    ['dart', 'dart', 'Placebook.moonList.unit(PlacebookNetwork.cobaltHeron)'],
    ['tsx', 'typescript', 'Placebook.moonList.unit(PlacebookNetwork.cobaltHeron)'],
    ['csharp', 'csharp', 'Placebook.MoonList.Unit(PlacebookNetwork.CobaltHeron)'],
  ] as const)('in %s has the sample of the profile', (name, language, unit) => {
    const list = profileOf('cobalt-heron').code[language]?.formats.native?.list ?? '';
    const withoutSpot = adapter(name).replace(/ {4}private (?:val|let) spot = Placebook\.moonList\n/, '');
    expect(list).toContain('UNIT_ID');
    expect(withoutSpot).toContain(list.replace('UNIT_ID', unit));
  });

  it('in Kotlin compiles beside the placebook', () => {
    put({
      'Placebook.kt': kotlinPlacebook(moonBook('android'), {
        ...options,
        packageName: 'kelp',
        stage: 'test',
      }),
      'Stubs.kt': `package kelp
class Context
class Moon
class HeronNative { fun release() {}
    companion object { fun load(context: Context, unit: String, listener: HeronListener) { listener.toString() + context + unit } } }
interface HeronListener { fun onHeronLoaded(ad: HeronNative); fun onHeronFailed(reason: String) }
class RowHolder { fun showAd(ad: HeronNative?) { println(ad) }
    fun showMoon(moon: Moon) { println(moon) } }
open class RecyclerView { abstract class Adapter<Holder> {
    fun notifyItemChanged(row: Int) { println(row) }
    abstract fun getItemCount(): Int
    open fun getItemViewType(position: Int): Int = 0
    abstract fun onBindViewHolder(holder: Holder, position: Int)
    open fun onDetachedFromRecyclerView(view: RecyclerView) {} } }
`,
      'Lists.kt': `package kelp\n${adapter('kotlin')}`,
    });
    run('kotlinc', ['Placebook.kt', 'Stubs.kt', 'Lists.kt', '-d', 'out']);
  }, 120_000);

  it('in C# compiles beside the placebook, and loads one ad after another', () => {
    const symbols = { android: 'UNITY_ANDROID', ios: 'UNITY_IOS' };
    put({
      'Placebook.cs': csharpPlacebook(moonBooks, { ...options, testCondition: 'true', symbols }),
      'Lists.cs': `using System;\nusing System.Collections.Generic;\nusing System.Threading.Tasks;\n${adapter('csharp')}
public sealed class Moon { }
public sealed class HeronNative
{
    public static int Now, Most, Number;
    public int Id;
    public void Release() { Console.Write(" released " + Id); }
    public static async Task<HeronNative> LoadAsync(string unit)
    {
        Most = Math.Max(Most, ++Now);
        var number = Number++;
        await Task.Delay(5);
        Now--;
        if (number == 1) throw new InvalidOperationException("no ad");
        return new HeronNative { Id = number };
    }
}
public static class Program
{
    public static void Main()
    {
        var shown = new List<int>();
        var ads = new ListAds(row => { lock (shown) shown.Add(row); });
        var rows = new MoonRows(new Moon[30], ads);
        for (var pass = 0; pass < 60; pass++)
        {
            for (var row = 0; row < rows.Count; row++) rows.At(row);
            Task.Delay(3).Wait();
        }
        Console.Write(rows.Count + " most " + HeronNative.Most + " asked " + HeronNative.Number + " shown " + string.Join(",", shown));
        ads.Release();
    }
}
`,
    });
    run('mcs', ['-warnaserror', '-define:UNITY_ANDROID', '-out:lists.exe', 'Placebook.cs', 'Lists.cs']);
    // Ads are at rows 3, 12, 21 and 30; the second one fails, and those behind it come all the same.
    expect(run('mono', ['lists.exe'])).toBe(
      '34 most 1 asked 4 shown 3,21,30 released 0 released 2 released 3',
    );
  }, 60_000);
});
