import { runInNewContext } from 'node:vm';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readEas } from '../../../src/core/formats/app-config/eas.js';
import { readAppJson } from '../../../src/core/formats/app-config/read-json.js';
import { readAppScript } from '../../../src/core/formats/app-config/read-script.js';
import {
  openParts,
  resolveConfig,
  configValueAt,
  type ConfigValue,
} from '../../../src/core/formats/app-config/resolve.js';
import { syntax } from '../../support/trees.js';

const base =
  '{\n  "expo": {\n    "name": "Kelp",\n    "android": { "package": "example.brine.kelp" },\n    "plugins": ["a", ["b", { "id": "X" }]]\n  }\n}\n';
const asStatic = (text: string) => {
  const { config } = readAppJson(text);
  return config ? resolveConfig(config, { path: 'app.json', variable: () => undefined }) : undefined;
};
function worked(script: string, env: Record<string, string | null> = {}): ConfigValue {
  const { config } = readAppScript(script, syntax);
  if (!config) throw new Error('No configuration was found.');
  const variable = (name: string) => env[name];
  return resolveConfig(config, { path: 'app.config.js', variable, given: asStatic(base) });
}
/** A value as plain data; what is open as its reason. */
function plain(value: ConfigValue | undefined): unknown {
  switch (value?.is) {
    case undefined:
      return undefined;
    case 'text':
    case 'plain':
      return value.value;
    case 'open':
      return `? ${value.reason}`;
    case 'list':
      return value.items.map(plain);
    case 'object':
      return Object.fromEntries([...value.entries].map(([key, one]) => [key, plain(one)]));
  }
}

describe('a configuration that is a script', () => {
  it.each([
    ['module.exports = { name: "Kelp" };'],
    ['export default { name: `Kelp` };'],
    ["module.exports = { expo: undefined, name: 'Kelp' };"],
    ["const name = 'Kelp';\nexport default { name };"],
    ["const config = { name: 'Kelp' };\nmodule.exports = config;"],
    ['export default ({ config }: ConfigContext): ExpoConfig => ({ ...config });'],
    ['module.exports = ({ config }) => {\n  // as it stands\n  return { ...config };\n};'],
    ['module.exports = function (context) { return { ...context.config, name: context.config.name }; };'],
    ['function make({ config: given }) { return given; }\nexport default make;'],
    ["export default { name: 'Kelp' } satisfies ExpoConfig;"],
  ])('is found: %s', (script) => {
    expect(plain(configValueAt(worked(script), ['name']))).toBe('Kelp');
  });

  it('lays the static configuration out where it is asked for', () => {
    const value = worked(
      "module.exports = ({ config }) => ({ ...config, name: 'Reef', plugins: [...(config.plugins ?? []), ['c', { at: 1 }]] });",
    );
    expect(plain(value)).toEqual({
      name: 'Reef',
      android: { package: 'example.brine.kelp' },
      plugins: ['a', ['b', { id: 'X' }], ['c', { at: 1 }]],
    });
    expect(configValueAt(value, ['android', 'package'])).toMatchObject({ path: 'app.json' });
    expect(configValueAt(value, ['name'])).toMatchObject({ path: 'app.config.js' });
  });

  it('weighs choices by the variables of a build', () => {
    const script =
      "const live = process.env.STAGE === 'live';\nexport default { id: live ? 'P' : 'T', also: !live ? 1 : 2, on: process.env.ON ? true : false };";
    expect(plain(worked(script, { STAGE: 'live', ON: '1' }))).toEqual({ id: 'P', also: 2, on: true });
    expect(plain(worked(script))).toEqual({ id: 'T', also: 1, on: false });
    expect(plain(worked(script, { STAGE: null }))).toMatchObject({
      id: "? it depends on process.env.STAGE === 'live'",
      on: false,
    });
  });

  it('takes variables, and what stands in for them', () => {
    const script =
      "module.exports = { a: process.env.A, b: process.env.B ?? 'b', c: process.env['C'] || 'c' };";
    expect(plain(worked(script, { A: 'one', C: 'three' }))).toEqual({ a: 'one', b: 'b', c: 'three' });
    expect(plain(worked(script))).toMatchObject({ a: '? the variable A is set by no build profile' });
    expect(worked(script, { A: 'one' })).toMatchObject({ is: 'object' });
    expect(configValueAt(worked(script, { A: 'one' }), ['a'])).toMatchObject({ variable: 'A' });
  });

  const ways = `
const IS_DEV = process.env.APP_VARIANT === 'development';
const getIdentifier = () => {
  if (IS_DEV) {
    return 'example.brine.kelp.dev';
  }
  if (process.env.APP_VARIANT === 'preview') return 'example.brine.kelp.preview';
  return 'example.brine.kelp';
};
function named(base, { short = false } = {}) {
  const suffix = IS_DEV ? ' (Dev)' : '';
  return short ? base : base + suffix;
}
`;
  const byJavaScript = (script: string, env: Record<string, string>): unknown => {
    const module = { exports: {} as unknown };
    runInNewContext(script, { module, process: { env }, console: { log: () => undefined } });
    const { exports } = module;
    const made: unknown =
      typeof exports === 'function'
        ? (exports as (context: unknown) => unknown)({ config: plain(asStatic(base)) })
        : exports;
    return JSON.parse(JSON.stringify(made));
  };
  it.each([
    [
      'functions with returns',
      `${ways}module.exports = { id: getIdentifier(), name: named('Kelp'), short: named('Kelp', { short: true }) };`,
    ],
    [
      'a switch',
      `const id = (stage) => { switch (stage) { case 'development': case 'preview': return 'T'; case 'other': break; default: return 'P'; } return 'O'; };
module.exports = ({ config }) => ({ ...config, id: id(process.env.APP_VARIANT), other: id('other') });`,
    ],
    [
      'a switch that sets a name',
      `let id; switch (process.env.APP_VARIANT) { case 'development': { id = 'T'; break; } case 'preview': id = 'Q'; default: id = id || 'P'; }
module.exports = { id };`,
    ],
    [
      'a table',
      `const variant = process.env.APP_VARIANT ?? 'production';
const table = { development: { id: 'T' }, preview: { id: 'Q' }, production: { id: 'P' } };
module.exports = { id: table[variant].id, again: table['preview'].id };`,
    ],
    [
      'texts put together',
      `const { APP_VARIANT = 'production' } = process.env;
const suffix = APP_VARIANT === 'production' ? '' : \`.\${APP_VARIANT}\`;
module.exports = { id: \`example.brine\${suffix}\`, also: 'example.' + 'brine' + suffix };`,
    ],
    [
      'what is set afterwards',
      `let id = 'P';
if (process.env.APP_VARIANT === 'development') { id = 'T'; } else if (process.env.APP_VARIANT) { id = 'Q'; }
module.exports = (context) => { const { config } = context; config.android.package = id; config.ios = { bundleIdentifier: id }; config.plugins.push(['c', {}]); console.log(config); return config; };`,
    ],
    [
      'what methods say',
      `const v = (process.env.APP_VARIANT || '').toLowerCase();
module.exports = { test: ['development', 'preview'].includes(v), pre: v.startsWith('pre'), list: [...(v === 'preview' ? ['x'] : []), 'y'], ...(v && { set: true }) };`,
    ],
    ['a function at once', `module.exports = (() => { const id = 'P'; return { id }; })();`],
    ['values before changes', `let a = 'x'; const b = a; a = 'y'; module.exports = { a, b };`],
  ])('comes to what JavaScript makes of it: %s', (_, script) => {
    for (const env of [
      { APP_VARIANT: 'development' },
      { APP_VARIANT: 'preview' },
      { APP_VARIANT: 'production' },
      {},
    ]) {
      expect(plain(worked(script, env as Record<string, string>))).toEqual(
        byJavaScript(script, env as Record<string, string>),
      );
    }
  });

  it('leaves open what a call may change, and what lies beyond a loop', () => {
    const changed = worked(
      "module.exports = ({ config }) => { addTo(config); return { ...config, slug: 'k' }; };",
    );
    expect(plain(configValueAt(changed, ['slug']))).toBe('k');
    expect(configValueAt(changed, ['name'])).toMatchObject({ is: 'open' });
    expect(
      worked('const ids = {};\nfor (const id of list) ids[id] = 1;\nmodule.exports = { ids };'),
    ).toMatchObject({ is: 'open' });
    expect(worked("const id = 'P';\n{ const id = 'inner'; }\nmodule.exports = { id };")).toMatchObject({
      is: 'open',
    });
    expect(worked("module.exports = withAds({ name: 'Kelp' });")).toMatchObject({ is: 'open' });
  });

  it('ends, however much a script repeats', () => {
    const twice = Array.from(
      { length: 40 },
      (_, at) => `const f${at + 1} = () => [...f${at}(), ...f${at}()];`,
    ).join('\n');
    for (const script of [
      `const f0 = () => ['x'];\n${twice}\nmodule.exports = { list: f40() };`,
      `const f = () => f();\nmodule.exports = { f: f() };`,
      `const a = b, b = a;\nmodule.exports = { a };`,
      `${'if (process.env.A) x = 1;\n'.repeat(3000)}module.exports = { a: 1 };`,
      `${'t = t + t;\n'.repeat(3000)}module.exports = { t };`,
      `let t = 'x';\n${'t = t + t;\n'.repeat(3000)}module.exports = { t };`,
      `const a0 = { x: 1 };\n${Array.from({ length: 40 }, (_, at) => `const a${at + 1} = { l: a${at}, r: a${at} };`).join('\n')}\nmodule.exports = { a: a40 };`,
    ])
      expect(openParts(worked(script)).length).toBeLessThan(60_000);
  });

  it('says what is worked out, and gives the rest', () => {
    const value = worked("module.exports = { name: require('./name').name, slug: 'kelp', ids: makeIds() };");
    expect(plain(configValueAt(value, ['slug']))).toBe('kelp');
    expect(openParts(value).map(({ reason }) => reason)).toEqual([
      "it is computed when the configuration runs: require('./name').name",
      'it is computed when the configuration runs: makeIds()',
    ]);
  });

  it('never throws, whatever stands in it', () => {
    const part = fc.constantFrom(
      'module.exports = ',
      'export default ',
      '({ config }) => ',
      '{',
      '}',
      '[',
      ']',
      '(',
      ')',
      '...config',
      'a: ',
      'process.env.A',
      ' ? ',
      ' : ',
      ' ?? ',
      ',',
      "'x'",
      '`${a}`',
      ';\n',
      'const a = ',
      'a',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 30 }), (parts) => {
        const { config } = readAppScript(parts.join(''), syntax);
        if (config) resolveConfig(config, { path: 'a', variable: () => null, given: asStatic(base) });
      }),
      { numRuns: 500 },
    );
  });
});

describe('app.json', () => {
  it('stands under expo, or alone', () => {
    expect(readAppJson(base).isExpo).toBe(true);
    expect(plain(asStatic(base))).toMatchObject({ name: 'Kelp' });
    expect(readAppJson('{ "name": "Kelp" }')).toMatchObject({ isExpo: false });
    expect(plain(asStatic('{ "name": "Kelp", /* kept */ "ios": {}, }'))).toEqual({ name: 'Kelp', ios: {} });
    expect(readAppJson('[]').config).toBeNull();
    expect(readAppJson('{ "expo": ').problems.length).toBeGreaterThan(0);
  });
});

describe('eas.json', () => {
  const eas = JSON.stringify({
    build: {
      base: { env: { A: 'base', B: 'base' } },
      development: { extends: 'base', developmentClient: true, env: { A: 'own' } },
      preview: { extends: 'base', ios: { buildConfiguration: 'Debug' } },
      production: { environment: 'production' },
      round: { extends: 'round' },
    },
  });
  it('gives its profiles, what they take over included', () => {
    expect(
      readEas(eas).profiles.map(({ name, development, hasRemoteVariables, env }) => [
        name,
        development,
        hasRemoteVariables,
        [...env].map(([key, { value }]) => `${key}=${value}`).join(' '),
      ]),
    ).toEqual([
      ['development', true, false, 'A=own B=base'],
      ['preview', true, false, 'A=base B=base'],
      ['production', false, true, ''],
      ['round', false, false, ''],
    ]);
  });

  it('never throws, whatever stands in it', () => {
    expect(readEas('{ "build": [] }').profiles).toEqual([]);
    expect(readEas('{ "build": { "a": { "env": 1, "extends": {} } } }').profiles).toHaveLength(1);
    expect(readEas('').profiles).toEqual([]);
  });
});
