import type { Stack } from '../stack.js';
import { declaredOnAndroid } from './declared.js';
import { appModules } from './scripts.js';
import { surveyAndroid } from './survey.js';
import { unwireAndroid } from './unwire.js';
import { wireAndroid } from './wire.js';

/** Native Android: Gradle modules that build an application. */
export const nativeAndroid: Stack = {
  id: 'native-android',
  name: 'native Android',
  collect: [
    { suffix: '.gradle' },
    { suffix: '.gradle.kts' },
    { name: 'gradle.properties' },
    { name: 'AndroidManifest.xml' },
    { suffix: '.xml', parent: 'values' },
    { suffix: '.xml', parent: 'layout', needle: true },
    { suffix: '.versions.toml' },
    { name: 'Placebook.kt' },
    { name: 'Placebook.java' },
    { suffix: '.kt', needle: true },
    { suffix: '.java', needle: true },
  ],
  // The application class, which networks are started in.
  writes: ['kotlin', 'java'],
  needles: [': Application()', 'extends Application'],
  folders: ['src/main/kotlin', 'src/main/java'],
  recognise(tree) {
    const modules = appModules(tree);
    return [...new Set(modules.map(({ root }) => root))].map((root) => ({
      root,
      evidence: modules.flatMap((module) => {
        if (module.root !== root) return [];
        return [`${module.script} applies the Android application plugin (module ${module.folder || '.'})`];
      }),
    }));
  },
  survey: surveyAndroid,
  wire: wireAndroid,
  unwire: unwireAndroid,
  declared: declaredOnAndroid,
};
