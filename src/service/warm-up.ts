import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runSurvey } from '../core/survey/run.js';
import type { ServiceContext } from './context.js';
import { collectPlanOf } from './routes/networks.js';
import { openStoreInMemory } from './store/open.js';
import { StoredReadings } from './store/reading-shelf.js';
import { TreeStore } from './store/tree-store.js';
import { collectTree } from './trees/collect.js';
import { readyGrammars, withGrammars } from './trees/grammars.js';

/** A module as small as one can be that has something of each kind to read. */
const sample: Readonly<Record<string, string>> = {
  'settings.gradle.kts': 'include(":app")\n',
  'app/build.gradle.kts': `plugins { id("com.android.application") }
android {
  namespace = "example.warm"
  defaultConfig { applicationId = "example.warm"; minSdk = 24; manifestPlaceholders["ads"] = "x" }
  buildTypes { release { isMinifyEnabled = true } }
}
dependencies { implementation("example.warm:ads:1.0.0") }
`,
  'app/src/main/AndroidManifest.xml': `<manifest xmlns:android="http://schemas.android.com/apk/res/android">
  <uses-permission android:name="android.permission.INTERNET"/>
  <application><meta-data android:name="example.warm.ID" android:value="@string/ads"/></application>
</manifest>
`,
  'app/src/main/res/values/ads.xml': '<resources><string name="ads">x</string></resources>\n',
  'app/src/main/kotlin/Warm.kt': `package example.warm
class Warm(private val ads: Ads) {
  private val unit = if (BuildConfig.DEBUG) "test" else "production"
  fun show() { ads.load(unit) { loaded -> if (loaded.ready) loaded.show() } }
}
`,
};

/** How often the sample is read: what has run some times runs quicker. */
const rounds = 8;
/** Libraries beside the sample's module, so that what is done per file is done often. */
const libraries = 30;

/**
 * Does once, with a small tree and a record of its own, what the first question will want done, so that whoever asks
 * it does not wait for grammars to be compiled, and for code that never ran. Nothing of it is kept; where it cannot
 * be done, the first question takes longer, and that is all.
 */
export async function warmUp(context: ServiceContext): Promise<void> {
  try {
    await readSample(context);
  } catch (error) {
    context.log.warn({ err: error }, 'The service could not warm up.');
  }
}

async function readSample(context: ServiceContext): Promise<void> {
  await readyGrammars(['kotlin', 'swift']);
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-warm-'));
  const store = openStoreInMemory();
  try {
    writeSample(folder);
    const trees = new TreeStore(store.db, new StoredReadings(store.db, 'warm'));
    const profiles = context.profiles.profiles();
    const plan = collectPlanOf(context.profiles);
    for (let round = 0; round < rounds; round++) {
      const collected = await collectTree(folder, { ...plan, needles: [...plan.needles, 'show'] });
      // A name of its own makes it a snapshot of its own.
      const { name, tree } = await trees.tree(trees.addCollected(`sample ${round}`, collected));
      await withGrammars(() => runSurvey(tree, { name, profiles, title: null }));
    }
    trees.close();
  } finally {
    store.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

function writeSample(folder: string): void {
  const write = (path: string, text: string) => {
    mkdirSync(join(folder, path, '..'), { recursive: true });
    writeFileSync(join(folder, path), text);
  };
  for (const [path, text] of Object.entries(sample)) write(path, text);
  for (let at = 0; at < libraries; at++) {
    write(`library${at}/build.gradle.kts`, `plugins { id("com.android.library") } // ${at}\n`);
    write(`library${at}/src/main/AndroidManifest.xml`, `<manifest/><!-- ${at} -->\n`);
    write(`app/src/main/kotlin/Warm${at}.kt`, `${sample['app/src/main/kotlin/Warm.kt'] ?? ''}// ${at}\n`);
  }
}
