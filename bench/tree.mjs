// Makes large trees as real ones are: applications, many library modules, assets, and all that does not matter.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** A generator of its own, so that every run makes the same tree. */
function random(seed) {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

const words =
  'tide harbour station water chart wave moon depth signal buoy anchor current reef shore light'.split(' ');

/** Writes files into a folder and counts them. */
function writer(folder) {
  const made = { files: 0, bytes: 0 };
  return {
    made,
    put(path, text) {
      mkdirSync(join(folder, path, '..'), { recursive: true });
      writeFileSync(join(folder, path), text);
      made.files++;
      made.bytes += text.length;
    },
  };
}

/** Writes a tree of about `count` files into a folder; returns how many there are, and their bytes. */
export function makeTree(folder, count) {
  const next = random(42);
  const { made, put } = writer(folder);
  const prose = (lines) =>
    Array.from(
      { length: lines },
      () =>
        `    val ${words[Math.floor(next() * 15)]}${Math.floor(next() * 1000)} = compute("${words[Math.floor(next() * 15)]}", ${Math.floor(next() * 1e6)})`,
    ).join('\n');
  put('settings.gradle.kts', 'include(":app")\n');
  put(
    'app/build.gradle.kts',
    'plugins {\n    id("com.android.application")\n    id("org.jetbrains.kotlin.android")\n}\nandroid {\n    namespace = "example.bench.app"\n    compileSdk = 35\n    defaultConfig { applicationId = "example.bench.app"\n minSdk = 24 }\n}\ndependencies { implementation("example.cobaltheron:ads-sdk:6.2.0") }\n',
  );
  put(
    'app/src/main/AndroidManifest.xml',
    '<manifest xmlns:android="http://schemas.android.com/apk/res/android">\n  <application>\n    <meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="@string/heron"/>\n  </application>\n</manifest>\n',
  );
  put(
    'app/src/debug/res/values/ids.xml',
    '<resources><string name="heron">CH-A-100001-SAMPLE0A</string></resources>\n',
  );
  put(
    'app/src/release/res/values/ids.xml',
    '<resources><string name="heron">CH-A-204418-7KQ2M9TD</string></resources>\n',
  );
  for (let i = 0; i < 40; i++) {
    put(
      `lib${i}/build.gradle.kts`,
      'plugins { id("com.android.library") }\nandroid { namespace = "example.bench.lib" }\n',
    );
    put(`lib${i}/src/main/AndroidManifest.xml`, '<manifest />\n');
    put(
      `lib${i}/src/main/res/values/strings.xml`,
      `<resources>\n${words.map((word) => `  <string name="${word}">${word} of the day</string>`).join('\n')}\n</resources>\n`,
    );
  }
  for (let i = 0; i < 12; i++)
    put(
      `app/src/main/kotlin/example/bench/Ads${i}.kt`,
      `package example.bench\n${prose(30)}\nval unit = "CH-U-204418-${String(i).padStart(8, 'A')}"\n`,
    );
  while (made.files < count) {
    const i = made.files;
    const kind = next();
    const lib = `lib${i % 40}`;
    if (kind < 0.34)
      put(
        `${lib}/src/main/kotlin/example/bench/m${i % 50}/File${i}.kt`,
        `package example.bench.m${i % 50}\n\nclass File${i} {\n${prose(20 + Math.floor(next() * 80))}\n}\n`,
      );
    else if (kind < 0.5)
      put(
        `${lib}/src/main/res/drawable/shape_${i}.xml`,
        `<vector xmlns:android="http://schemas.android.com/apk/res/android">\n${prose(8)}\n</vector>\n`,
      );
    else if (kind < 0.62)
      put(
        `${lib}/src/main/assets/data/${i}.json`,
        JSON.stringify(Array.from({ length: 40 }, (_, n) => ({ id: n, name: words[n % 15], depth: next() }))),
      );
    else if (kind < 0.72)
      put(
        `${lib}/src/main/res/mipmap-xhdpi/icon_${i}.png`,
        Buffer.from(Array.from({ length: 1500 }, () => Math.floor(next() * 256))),
      );
    else if (kind < 0.86) put(`web/src/pages/p${i % 60}/page${i}.js`, prose(60));
    else put(`web/node_modules/pack${i % 80}/lib/mod${i}.js`, prose(70));
  }
  return made;
}

/** The demo's trees, and how many of each a monorepo holds: ten titles on every stack. */
const apps = {
  tidewick: 1,
  'tidewick-lite': 1,
  plumebook: 2,
  kilnlog: 2,
  'kilnlog-expo': 1,
  'orrery-drift': 2,
  parcelgull: 1,
};

/** What the sources of each stack are called, where they lie, and how a line of them looks. */
const sources = [
  ['plumebook', 'lib/src/gen', 'dart', (word, n) => `final ${word}${n} = compute('${word}', ${n});`],
  ['kilnlog', 'src/gen', 'ts', (word, n) => `export const ${word}${n} = compute('${word}', ${n});`],
  ['kilnlog-expo', 'src/gen', 'tsx', (word, n) => `export const ${word}${n} = compute('${word}', ${n});`],
  ['orrery-drift', 'Assets/Scripts/Gen', 'cs', (word, n) => `// ${word}${n} = Compute("${word}", ${n});`],
  ['parcelgull', 'Gen', 'cs', (word, n) => `// ${word}${n} = Compute("${word}", ${n});`],
  [
    'tidewick',
    'android/app/src/main/kotlin/gen',
    'kt',
    (word, n) => `val ${word}${n} = compute("${word}", ${n})`,
  ],
  ['tidewick', 'ios/Tidewick/Gen', 'swift', (word, n) => `let ${word}${n} = compute("${word}", ${n})`],
];

/** Writes a monorepo of ten titles and `count` files; returns how many there are, and their bytes. */
export function makeMonorepo(folder, demo, count) {
  const next = random(7);
  const { made, put } = writer(folder);
  const copy = (from, to, rename) => {
    for (const entry of readdirSync(from, { withFileTypes: true })) {
      const [source, path] = [join(from, entry.name), `${to}/${entry.name}`];
      if (entry.isDirectory()) copy(source, path, rename);
      else put(path, rename(readFileSync(source, 'utf8')));
    }
  };
  for (const [name, times] of Object.entries(apps))
    for (let at = 0; at < times; at++)
      copy(join(demo, name), `apps/${name}${at === 0 ? '' : at + 1}`, (text) =>
        at === 0 ? text : text.replaceAll('example.saltmarsh.', `example.saltmarsh${at + 1}.`),
      );
  while (made.files < count) {
    const i = made.files;
    const kind = next();
    const lines = (write) =>
      Array.from({ length: 25 + Math.floor(next() * 60) }, () =>
        write(words[Math.floor(next() * 15)], Math.floor(next() * 1e6)),
      ).join('\n');
    const [app, home, end, write] = sources[i % sources.length];
    if (kind < 0.45) put(`apps/${app}/${home}/m${i % 40}/File${i}.${end}`, `${lines(write)}\n`);
    else if (kind < 0.6)
      put(
        `apps/${app}/assets/data/${i % 90}/${i}.json`,
        JSON.stringify(words.map((name, id) => ({ id, name }))),
      );
    else if (kind < 0.7)
      put(
        `art/${i % 70}/icon_${i}.png`,
        Buffer.from(Array.from({ length: 1200 }, () => Math.floor(next() * 256))),
      );
    else if (kind < 0.85) put(`tools/src/p${i % 60}/tool${i}.js`, lines(sources[1][3]));
    else put(`node_modules/pack${i % 300}/lib/mod${i}.js`, lines(sources[1][3]));
  }
  return made;
}
