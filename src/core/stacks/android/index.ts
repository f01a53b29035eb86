import { documentFiles } from '../common/documents.js';
import type { Stack } from '../stack.js';
import { nativeAndroid as description } from './description.js';
import { declaredOnAndroid } from './survey/declared.js';
import { surveyAndroid } from './survey/index.js';
import { unwireAndroid } from './unwire/index.js';
import { recogniseAndroid } from './recognise.js';
import { wireAndroid } from './wire/index.js';

/** Native Android: Gradle modules that build an application. */
export const nativeAndroid: Stack = {
  ...description,
  collect: [
    { suffix: '.gradle' },
    { suffix: '.gradle.kts' },
    { name: 'gradle.properties' },
    { name: 'AndroidManifest.xml' },
    { suffix: '.xml', parent: 'values' },
    { suffix: '.xml', parent: 'layout', needle: true },
    { suffix: '.versions.toml' },
    { suffix: '.pro' },
    { name: 'proguard-rules.txt' },
    { name: 'Placebook.kt' },
    { name: 'Placebook.java' },
    { suffix: '.kt', needle: true },
    { suffix: '.java', needle: true },
    { suffix: '.xml', parent: 'raw', needle: true },
    { suffix: '.xml', parent: 'xml', needle: true },
    ...documentFiles,
  ],
  writes: ['kotlin', 'java'],
  // The application class, which networks are started in.
  needles: [': Application()', 'extends Application'],
  folders: ['src/main/kotlin', 'src/main/java'],
  skips: ['.gradle', '.cxx', 'build'],
  recognise: recogniseAndroid,
  survey: surveyAndroid,
  wire: wireAndroid,
  unwire: unwireAndroid,
  declared: declaredOnAndroid,
};
