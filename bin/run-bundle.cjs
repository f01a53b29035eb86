'use strict';
// Runs the built client, with the code that V8 compiled for it kept beside it: most of a short command's time
// would else go into compiling the same bundle again. Whatever is wrong with a cache, the bundle runs without.
const { mkdirSync, readFileSync, renameSync, statSync, writeFileSync } = require('node:fs');
const { createRequire, wrap } = require('node:module');
const { dirname, join } = require('node:path');
const { setFlagsFromString } = require('node:v8');
const { Script } = require('node:vm');

// As the service sets it for its grammars; set from the start, or compiled code that is kept would count as foreign.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');
// A command is over before collecting garbage in steps, or optimizing what ran a few times, pays off. What stays does
// as usual, and keeps its compiled code apart: the engine takes none that was made under other settings.
const stays = ['serve', 'demo', 'partner'].includes(process.argv[2] ?? '');
if (!stays) {
  setFlagsFromString('--no-incremental-marking');
  setFlagsFromString('--interrupt-budget=1000000');
}

const folder = join(__dirname, '..', 'dist', 'node');
const caches = join(folder, 'cache');
/** Whether what is kept is added to, as the build does, or made once. */
const adds = process.env.SYNDEXA_KEEP_COMPILED === '1';

function read(file) {
  try {
    return readFileSync(file);
  } catch {
    return undefined;
  }
}

/** Parts of Node that only some commands need, and that take milliseconds each to load. */
const seldom = new Set([
  'assert',
  'child_process',
  'crypto',
  'fs/promises',
  'os',
  'readline/promises',
  'timers/promises',
  'worker_threads',
  'zlib',
]);

/** A part of Node that is loaded when something is first asked of it. */
function whenAsked(own, name) {
  let loaded;
  const module = () => (loaded ??= own(name));
  // Some are functions themselves, so what stands for them must be one.
  return new Proxy(() => undefined, {
    get: (_, key) => module()[key],
    has: (_, key) => key in module(),
    ownKeys: () => [...new Set(['length', 'name', ...Reflect.ownKeys(module())])],
    getOwnPropertyDescriptor(_, key) {
      const found = Reflect.getOwnPropertyDescriptor(module(), key);
      return found && { ...found, configurable: true };
    },
    apply: (_, self, args) => Reflect.apply(module(), self, args),
  });
}

/** Scripts to keep, and where: at the end of the process, when the command has shown which functions it needs. */
const toKeep = new Map();
process.once('exit', () => {
  for (const [cache, script] of toKeep) {
    try {
      mkdirSync(caches, { recursive: true });
      const draft = `${cache}.${process.pid}`;
      writeFileSync(draft, script.createCachedData());
      renameSync(draft, cache);
    } catch {
      // A folder that cannot be written to only means that the next command is no quicker.
    }
  }
});

/** What bundles gave, by their names. */
const bundles = new Map();

function load(name) {
  const known = bundles.get(name);
  if (known) return known.exports;
  const file = join(folder, name);
  const source = readFileSync(file, 'utf8');
  // V8 itself compares only the length of the source, so the name must tell one build from another.
  const made = `${process.version}.${statSync(file).mtimeMs}`;
  const cache = join(caches, `${name}.${made}.${stays ? 'stays' : 'brief'}`);
  const cachedData = read(cache);
  const script = new Script(wrap(source), { filename: file, cachedData });
  if (!cachedData || script.cachedDataRejected || adds) toKeep.set(cache, script);
  const own = createRequire(file);
  const loaded = { exports: {} };
  bundles.set(name, loaded);
  const require = (wanted) => {
    if (wanted.startsWith('./') && wanted.endsWith('.cjs')) return load(wanted.slice(2));
    return seldom.has(wanted.replace(/^node:/, '')) ? whenAsked(own, wanted) : own(wanted);
  };
  script.runInThisContext()(loaded.exports, require, loaded, file, dirname(file));
  return loaded.exports;
}

load('client.cjs');
