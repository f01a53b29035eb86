'use strict';
// Runs the built client, and keeps beside it the code that V8 compiled of it: compiling the same bundle again would
// take most of the time of a short command. Whatever is wrong with a cache, the bundle runs without it.
const { mkdirSync, readFileSync, renameSync, statSync, writeFileSync } = require('node:fs');
const { createRequire, wrap } = require('node:module');
const { dirname, join } = require('node:path');
const { setFlagsFromString } = require('node:v8');
const { Script } = require('node:vm');

// As the service sets them for its grammars. Compiled code is kept for the flags under which it was made.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');

const folder = join(__dirname, '..', 'dist', 'node');
const caches = join(folder, 'cache');
/** Scripts to keep, by the file of their cache: kept at exit, when V8 has compiled the functions that were needed. */
const fresh = new Map();
const bundles = new Map();

process.once('exit', () => {
  for (const [cache, script] of fresh) {
    try {
      mkdirSync(caches, { recursive: true });
      writeFileSync(`${cache}.${process.pid}`, script.createCachedData());
      renameSync(`${cache}.${process.pid}`, cache);
    } catch {
      // A folder that cannot be written to only means that the next command is no faster.
    }
  }
});

function read(file) {
  try {
    return readFileSync(file);
  } catch {
    return undefined;
  }
}

function load(name) {
  const known = bundles.get(name);
  if (known) return known.exports;
  const file = join(folder, name);
  // V8 compares only the length of the source, so the name has to tell one build from another.
  const cache = join(caches, `${name}.${process.version}.${statSync(file).mtimeMs}`);
  const cachedData = read(cache);
  const script = new Script(wrap(readFileSync(file, 'utf8')), { filename: file, cachedData });
  if (!cachedData || script.cachedDataRejected) fresh.set(cache, script);
  const own = createRequire(file);
  const loaded = { exports: {} };
  bundles.set(name, loaded);
  const require = (wanted) => (/^\.\/.*\.cjs$/.test(wanted) ? load(wanted.slice(2)) : own(wanted));
  script.runInThisContext()(loaded.exports, require, loaded, file, dirname(file));
  return loaded.exports;
}

load('client.cjs');
