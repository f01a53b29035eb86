import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lexGradle } from '../../../src/core/formats/gradle/lex.js';
import { blockBody, callsIn, literal, settingIn } from '../../../src/core/formats/gradle/query.js';
import { readGradle } from '../../../src/core/formats/gradle/read.js';

/** Statements that a reader loses its place in when it takes a string, a bracket or a label for something else. */
const groovy = [
  "def pattern = /it's (a|b) { /",
  'if (name ==~ /.*"quoted.*/) { println name }',
  'def found = text =~ /^\\/\\*[^{]*$/',
  "def path = $/C:\\it's $$x {$/ ${name}/$",
  'exclude(/[^}]*/, /"/)',
  "def half = (a + b) / 2 // it's half",
  'def ratio = sizes[0] / 2 + other / 3',
  "def text = '''\n  { it's \"open\n'''",
  'def text = """\n  { ${ names.collect { "${it}}" }.join("}") } "\n"""',
  'def text = "${ map[\'}\'] ?: "{" }"',
  'outer: for (x in [1, 2]) { continue outer }',
  'switch (name) {\n  case "a": one(); break\n  case ~/b.*/:\n    two()\n  default: three()\n}',
  "def run = { a, Closure b = { -> '}' }, c = [x: '{'] -> a + c }",
  'tasks.each { Task t ->\n  t.doLast { println "}" }\n}',
  'def all = ["${name}": 1, (other): 2, \'a b\': "}"]',
  '@groovy.transform.CompileStatic\ndef release(String name = "{") {\n  return name.replace("}", "")\n}',
  "names*.toUpperCase().findAll { it != '}' }",
  'def less = a <=> b',
  'def shifted = 1 << 4 ?: -1',
  'task old << { println "}" }',
  'def no = !names.any { it.startsWith("{") }',
  "def long = a ?\n  '{' :\n  '}'",
  "def many = 'a' + \\\n  '}'",
];
const kotlin = [
  'val pattern = Regex("""^\\s*"(\\w+)"\\{""")',
  'val raw = """"{quoted""""',
  'val text = "${if (on) { "}" } else "{"}"',
  'val text = """\n  ${names.joinToString { "<$it>}" }}\n"""',
  "val brace = '{'",
  "val quote = '\"'",
  'outer@ for (x in 1..3) { continue@outer }',
  'names.forEach { if (it == "}") return@forEach }',
  'fun Project.release(name: String = "{"): String { return name + "}" }',
  'fun <T> twice(x: T): List<T> = listOf(x, x)',
  '@Suppress("UnstableApiUsage", "}")\nval x = 1',
  '@file:Suppress("{")',
  'when (name) {\n  "a" -> one("{")\n  in names -> { two() }\n  else -> three()\n}',
  'val sum = { a: Int, b: (Int) -> Int -> a + b(1) }',
  'val `a {name` = 1',
  'val m = mapOf("${name}{" to 1, "}" to 2)',
  'val no = !on && (a as? String)?.isEmpty() != true',
  'val x = y!!.z ?: error("{")',
];

const between = (statement: string) =>
  `android {\n  minSdk = 21\n  ${statement}\n  targetSdk = 33\n}\nafter("x")\n`;

describe.each([
  ['Groovy', groovy],
  ['Kotlin', kotlin],
])('%s statements', (_, statements) => {
  it.each(statements)('keep their place: %j', (statement) => {
    const { statements: found, problems } = readGradle(between(statement));
    const body = blockBody(found, 'android');
    expect(problems).toEqual([]);
    expect(callsIn(found).map(({ path }) => path)).toEqual(['android', 'after']);
    expect(literal(settingIn(body, ['minSdk'])?.value)).toBe('21');
    expect(literal(settingIn(body, ['targetSdk'])?.value)).toBe('33');
  });

  it('keep it in any order, on one line or many', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...statements), { maxLength: 6 }), (chosen) => {
        const { statements: found, problems } = readGradle(between(chosen.join('\n')));
        expect(problems).toEqual([]);
        expect(literal(settingIn(blockBody(found, 'android'), ['targetSdk'])?.value)).toBe('33');
      }),
    );
  });
});

describe('what the statements say', () => {
  const names = (text: string) => callsIn(readGradle(text).statements);

  it('reads what a closure with parameters on its line does', () => {
    const [each] = names('variants.all { v, b = { 1 } -> v.minSdk(24) }');
    expect(callsIn(each?.call.body ?? []).map(({ path }) => path)).toEqual(['v.minSdk']);
  });

  it('reads the branches of when and switch as conditions', () => {
    const branches = [
      'when (x) {\n "a" -> { one() }\n else -> two()\n}',
      'switch (x) {\n case "a": one()\n default: two()\n}',
    ];
    for (const text of branches)
      expect(names(text).map(({ path, conditional }) => [path, conditional])).toEqual([
        ['one', true],
        ['two', true],
      ]);
  });

  it('does not take the body of a function for what the script does', () => {
    expect(
      names('def on() { minSdk(1) }\nfun off() { minSdk(2) }\nfun x() = minSdk(3)\nminSdk(4)'),
    ).toHaveLength(1);
  });

  it.each([
    ['x = /a\\/b/', 'a\\/b'],
    ['x = $/a$/$$b/$', 'a$/$$b'],
    ['x = """"a""""', '"a"'],
  ])('keeps the contents of %j', (text, contents) => {
    expect(lexGradle(text).tokens.find(({ kind }) => kind === 'string')?.text).toBe(contents);
  });

  it('covers every character once, whatever comes', () => {
    const pieces = fc.constantFrom(
      '"',
      "'",
      '/',
      '$/',
      '/$',
      '"""',
      '${',
      '{',
      '}',
      '\\',
      '\n',
      'a',
      ' ',
      '=',
      '(',
      ')',
      '->',
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 60 }), (chosen) => {
        const text = chosen.join('');
        const { tokens } = lexGradle(text);
        for (const [at, token] of tokens.entries()) {
          expect(token.end).toBeGreaterThanOrEqual(token.start);
          expect(token.start).toBeGreaterThanOrEqual(tokens[at - 1]?.end ?? 0);
        }
        readGradle(text);
      }),
    );
  });
});
