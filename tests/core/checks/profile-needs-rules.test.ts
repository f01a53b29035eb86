import { expect } from 'vitest';
import { desugaringMissing } from '../../../src/core/checks/rules/build-desugaring-missing.js';
import { javaLevelTooLow } from '../../../src/core/checks/rules/build-java-level-too-low.js';
import { shrinkerRuleMissing } from '../../../src/core/checks/rules/build-shrinker-rule-missing.js';
import { consentNotAsked } from '../../../src/core/checks/rules/code-consent-not-asked.js';
import { loadBeforeConsent } from '../../../src/core/checks/rules/code-load-before-consent.js';
import { mergeDirectiveMissing } from '../../../src/core/checks/rules/manifest-merge-directive-missing.js';
import { metaDataDiffers } from '../../../src/core/checks/rules/manifest-meta-data-differs.js';
import { metaDataMissing } from '../../../src/core/checks/rules/manifest-meta-data-missing.js';
import { brackwater, onBrackwater } from '../../support/brackwater.js';
import { ruleCases, type RuleCase } from '../../support/rules.js';
import { androidFiles, gradle, iosFiles, manifest } from '../../support/trees.js';

const shared = { title: onBrackwater(), profiles: [brackwater()] };
const main = 'app/src/main/AndroidManifest.xml';
const script = 'app/build.gradle.kts';
const home = 'app/src/main/java/example/brine/kelp';

const android = (changes: Record<string, string>): Pick<RuleCase, 'files' | 'title' | 'profiles'> => ({
  files: androidFiles({ [`${home}/KelpApp.java`]: null, ...changes }),
  ...shared,
});
const built = (block: string, dependencies = '') => android({ [script]: gradle(block, dependencies) });
const declared = (body: string, head = '', attributes = '') =>
  android({
    [main]: manifest(body, head)
      .replace('<manifest ', `<manifest xmlns:tools="http://schemas.android.com/tools" `)
      .replace('<application ', `<application ${attributes} `),
  });
const kotlin = (body: string) =>
  android({ [`${home}/Screen.kt`]: `class Screen : Activity() {\nfun go() {\n${body}\n}\n}\n` });
const swift = (body: string): Pick<RuleCase, 'files' | 'title' | 'profiles'> => ({
  files: iosFiles({ 'Kelp/App.swift': `class Screen {\nfunc go() {\n${body}\n}\n}\n` }),
  ...shared,
});

const measure = '<meta-data android:name="example.brackwater.MEASURE" android:value="false" />';
const services =
  '<meta-data android:name="example.brackwater.SERVICES" android:resource="@xml/brackwater_services" />';

ruleCases(metaDataMissing, {
  clean: [
    { name: 'both are there', ...declared(`${measure}\n${services}`) },
    {
      name: 'one has another value, which is another rule’s matter',
      ...declared(`${measure.replace('false', 'true')}\n${services}`),
    },
  ],
  faulty: [
    { name: 'neither', ...declared(''), findings: [{ platform: 'android' }, { platform: 'android' }] },
    {
      name: 'one is in an activity',
      ...declared(`<activity android:name=".A">${measure}</activity>\n${services}`),
      findings: [{ message: expect.stringContaining('activity') }],
    },
    {
      name: 'a directive removes it',
      ...declared(`<meta-data android:name="example.brackwater.MEASURE" tools:node="remove" />\n${services}`),
      findings: [{ message: expect.stringContaining('tools:node="remove"') }],
    },
  ],
});

ruleCases(metaDataDiffers, {
  clean: [
    { name: 'as it is wanted', ...declared(`${measure}\n${services}`) },
    { name: 'none at all', ...declared('') },
    { name: 'a placeholder that the build fills', ...declared(measure.replace('false', '${measure}')) },
  ],
  faulty: [
    {
      name: 'another value',
      ...declared(measure.replace('false', 'true')),
      findings: [{ message: expect.stringContaining('android:value="true"') }],
    },
    {
      name: 'a value instead of a resource',
      ...declared(services.replace('resource=', 'value=')),
      findings: [{ message: expect.stringContaining('android:resource="@xml/brackwater_services"') }],
    },
  ],
});

const phone = (directive: string) =>
  `<uses-permission android:name="example.brackwater.permission.PHONE" ${directive} />`;
const full = (directive: string) =>
  `<activity android:name="example.brackwater.FullScreen" android:theme="@style/Brackwater" ${directive} />`;
ruleCases(mergeDirectiveMissing, {
  clean: [
    {
      name: 'all are given',
      ...declared(
        full('tools:replace="android:theme"'),
        phone('tools:node="remove"'),
        'android:allowBackup="true" tools:replace="android:label,android:allowBackup"',
      ),
    },
    { name: 'nothing is given that could differ', ...declared('', phone('tools:node="remove"')) },
  ],
  faulty: [
    {
      name: 'an attribute that would differ',
      ...declared('', phone('tools:node="remove"'), 'android:allowBackup="true"'),
      findings: [{ message: expect.stringContaining('tools:replace="android:allowBackup"') }],
    },
    {
      name: 'an element that would come from the SDK',
      ...declared(''),
      findings: [{ message: expect.stringContaining('uses-permission') }],
    },
    {
      name: 'another directive on it',
      ...declared(full('tools:node="merge"'), phone('tools:node="merge"')),
      findings: [
        { message: expect.stringContaining('tools:node="remove"') },
        { message: expect.stringContaining('tools:replace="android:theme"') },
      ],
    },
  ],
});

const level = (written: string) => `    compileOptions { targetCompatibility = ${written} }\n`;
ruleCases(javaLevelTooLow, {
  clean: [
    { name: 'eleven', ...built(level('JavaVersion.VERSION_11')) },
    { name: 'seventeen for Kotlin too', ...built(`${level('"17"')}kotlinOptions { jvmTarget = "17" }`) },
    { name: 'what nobody can tell', ...built(level('rootProject.ext.java')) },
  ],
  faulty: [
    {
      name: 'eight',
      ...built(level('JavaVersion.VERSION_1_8')),
      findings: [{ place: expect.objectContaining({ path: script }) }],
    },
    {
      name: 'nothing, which is eight',
      ...built(''),
      findings: [{ message: expect.stringContaining('compiled for 8') }],
    },
    {
      name: 'Kotlin alone',
      ...built(`${level('JavaVersion.VERSION_17')}kotlinOptions { jvmTarget = "1.8" }`),
      findings: [{ message: expect.stringContaining('Kotlin is compiled for 8') }],
    },
  ],
});

const on = '    compileOptions { isCoreLibraryDesugaringEnabled = true }\n';
const library = (version: string) => `coreLibraryDesugaring("com.android.tools:desugar_jdk_libs:${version}")`;
ruleCases(desugaringMissing, {
  clean: [{ name: 'on, with the library', ...built(on, library('2.1.0')) }],
  faulty: [
    { name: 'neither', ...built(''), findings: [{}, {}] },
    {
      name: 'off',
      ...built(on.replace('true', 'false'), library('2.1.0')),
      findings: [{ message: expect.stringContaining('switched on') }],
    },
    {
      name: 'without the library',
      ...built(on),
      findings: [{ message: expect.stringContaining('desugar_jdk_libs') }],
    },
    {
      name: 'an old library',
      ...built(on, library('1.1.5')),
      findings: [{ message: expect.stringContaining('1.1.5') }],
    },
  ],
});

const shrunk =
  '    buildTypes {\n        release {\n            isMinifyEnabled = true\n            proguardFiles("rules.pro")\n        }\n    }\n';
const ruled = (rules: string, block = shrunk) =>
  android({ [script]: gradle(block, ''), 'app/rules.pro': rules });
ruleCases(shrinkerRuleMissing, {
  clean: [
    { name: 'the rule is there', ...ruled('-keep class example.brackwater.bridge.** { *; }\n') },
    { name: 'nothing is shrunk', ...ruled('', shrunk.replace('true', 'false')) },
  ],
  faulty: [
    {
      name: 'another rule',
      ...ruled('-keep class example.brackwater.Other\n'),
      findings: [{ variants: ['release'] }],
    },
    { name: 'in a comment', ...ruled('# -keep class example.brackwater.bridge.** { *; }\n'), findings: [{}] },
  ],
});

const ask = 'BrackwaterConsent.ask(this)';
const load = 'val slot = AdSlot(this)\nslot.load()';
ruleCases(consentNotAsked, {
  clean: [
    { name: 'it is asked', ...kotlin(`${ask}\n${load}`) },
    { name: 'nothing is loaded', ...kotlin('val x = 1') },
  ],
  faulty: [
    {
      name: 'it is not',
      byHand: { edits: [[`${home}/Screen.kt`, load, `${ask}\n${load}`]] },
      ...kotlin(load),
      findings: [{ mend: expect.stringContaining('BrackwaterConsent.ask(activity)') }],
    },
    { name: 'on iOS', ...swift('let slot = AdSlot(unitID: "5200201")'), findings: [{ platform: 'ios' }] },
  ],
});

ruleCases(loadBeforeConsent, {
  clean: [
    {
      name: 'in the closure',
      ...swift('BrackwaterConsent.ask { _ in\nlet slot = AdSlot(unitID: "5200201")\n}'),
    },
    { name: 'after a call that suspends', ...kotlin(`${ask}\n${load}`) },
  ],
  faulty: [
    {
      name: 'beside it',
      byHand: {
        edits: [
          [
            'Kelp/App.swift',
            '{ _ in }\nlet slot = AdSlot(unitID: "5200201")',
            '{ _ in\nlet slot = AdSlot(unitID: "5200201") }',
          ],
        ],
      },
      ...swift('BrackwaterConsent.ask { _ in }\nlet slot = AdSlot(unitID: "5200201")'),
      findings: [{ place: expect.objectContaining({ line: 4 }) }],
    },
  ],
});
