import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import type { Title } from '../../../src/core/roster/model.js';
import {
  androidFiles,
  appIdMetaData,
  gradle,
  kelp,
  manifest,
  placement,
  profiles,
  treeOf,
} from '../../support/trees.js';
import { comesBack, holds, type Files } from '../../support/wiring.js';

const script = 'app/build.gradle.kts';
const main = 'app/src/main/AndroidManifest.xml';
const survey = (files: Files) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } }).survey;
const withPackage = (body = appIdMetaData('@string/heron')) =>
  manifest(body).replace('<manifest ', '<manifest package="example.brine.kelp" ');
const without = (...lines: string[]) =>
  lines.reduce((text, line) => text.replace(line, ''), gradle()).replace(/^\s*\n/gm, '');
const namespace = '    namespace = "example.brine.kelp"\n';
const identifier = '        applicationId = "example.brine.kelp"\n';

describe('the package of a manifest', () => {
  it('is the identifier where no script sets one', () => {
    const { editions, facts } = survey(
      androidFiles({ [script]: without(namespace, identifier), [main]: withPackage() }),
    );
    expect(editions[0]?.identifier).toBe('example.brine.kelp');
    const [fact] = facts.filter(({ kind }) => kind === 'identifier');
    expect(fact?.place.path).toBe(main);
  });

  it('takes the suffixes of build types', () => {
    const text = without(namespace, identifier).replace(
      'defaultConfig {',
      'buildTypes {\n        getByName("debug") {\n            applicationIdSuffix = ".dev"\n        }\n    }\n    defaultConfig {',
    );
    const { editions } = survey(androidFiles({ [script]: text, [main]: withPackage() }));
    expect(editions[0]?.identifiers).toEqual({
      debug: 'example.brine.kelp.dev',
      release: 'example.brine.kelp',
    });
  });

  it('is what short names of classes belong to', () => {
    const declared = withPackage().replace('<application ', '<application android:name=".KelpApp" ');
    const { facts } = survey(androidFiles({ [script]: without(namespace), [main]: declared }));
    const found = facts.filter(({ kind, name }) => kind === 'application-class' && name === undefined);
    expect(new Set(found.map(({ value }) => value))).toEqual(new Set(['example.brine.kelp.KelpApp']));
  });

  it('is the package of the placebook', () => {
    const title = kelp({
      placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'x') } as Title['placements'],
      editions: { android: { identifier: 'example.brine.kelp' } },
    });
    const files = androidFiles({
      [script]: without(namespace, identifier).replace(/implementation\(.*\)/, ''),
      [main]: withPackage('').replace(/ *<uses-permission.*\n/g, ''),
      'app/src/debug/res/values/ids.xml': null,
      'app/src/release/res/values/ids.xml': null,
      'settings.gradle.kts': 'include(":app")\n',
    });
    const result = holds(files, title);
    expect(Object.keys(result.after).filter((path) => path.includes('Placebook'))).toEqual([
      'app/src/debug/java/example/brine/kelp/ads/Placebook.kt',
      'app/src/release/java/example/brine/kelp/ads/Placebook.kt',
    ]);
    comesBack(files, title, result);
  });

  it('where nothing names the application, that is said', () => {
    const { editions, unresolved } = survey(androidFiles({ [script]: without(namespace, identifier) }));
    expect(editions[0]?.identifier).toBeNull();
    expect(unresolved.find(({ kind }) => kind === 'identifier')?.reason).toMatch(
      /no script sets applicationId/,
    );
  });
});
