import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { flutterFiles, kelpWithBanner, lock, pubspec, screen } from '../../support/flutter.js';
import { findingsOf } from '../../support/rules.js';
import { profiles, treeOf } from '../../support/trees.js';
import { asked, holds, text, unplan, written, type Files } from '../../support/wiring.js';

const title = kelpWithBanner();
const packageOf = (name: string, dependencies = '') =>
  `name: ${name}\nenvironment:\n  sdk: ^3.5.0\ndependencies:\n  flutter:\n    sdk: flutter\n${dependencies}`;
const heron = '  cobalt_heron_ads: ^4.1.0\n';
const choice = "Platform.isIOS ? 'CH-U-310772-CCCC2222' : 'CH-U-310772-BBBB1111'";
/** The small project below `app`, with other packages beside it. */
const beside = (packages: Record<string, string>, changes: Record<string, string | null> = {}) => {
  const app = Object.entries(flutterFiles(changes)).map(([path, content]) => [`app/${path}`, content]);
  return { ...(Object.fromEntries(app) as Record<string, string>), ...packages };
};
const survey = (files: Files) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const unitPaths = (files: Files) => [
  ...new Set(survey(files).facts.flatMap(({ kind, place }) => (kind === 'unit-id' ? [place.path] : []))),
];

const adsInPackage = {
  'packages/ads/pubspec.yaml': packageOf('kelp_ads', heron),
  'packages/ads/lib/reef.dart': screen(choice),
};

describe('packages beside a Flutter application', () => {
  it.each<[string, Record<string, string>]>([
    [
      'by path',
      beside(adsInPackage, { 'pubspec.yaml': pubspec('  kelp_ads:\n    path: ../packages/ads\n') }),
    ],
    [
      'by an override',
      beside(
        {
          ...adsInPackage,
          'app/pubspec_overrides.yaml': 'dependency_overrides:\n  kelp_ads:\n    path: ../packages/ads\n',
        },
        { 'pubspec.yaml': pubspec('  kelp_ads: ^1.0.0\n') },
      ),
    ],
    [
      'of a workspace',
      beside(
        {
          ...adsInPackage,
          'packages/ads/pubspec.yaml': `resolution: workspace\n${packageOf('kelp_ads', heron)}`,
          'pubspec.yaml': 'name: _\nenvironment:\n  sdk: ^3.6.0\nworkspace:\n  - app\n  - packages/*\n',
          'pubspec.lock': lock(),
        },
        { 'pubspec.yaml': `resolution: workspace\n${pubspec('  kelp_ads: ^1.0.0\n')}`, 'pubspec.lock': null },
      ),
    ],
    [
      'of another one',
      beside(
        {
          ...adsInPackage,
          'packages/ui/pubspec.yaml': packageOf('kelp_ui', '  kelp_ads:\n    path: ../ads\n'),
          'packages/ui/lib/ui.dart': "export 'package:kelp_ads/reef.dart';\n",
        },
        { 'pubspec.yaml': pubspec('  kelp_ui:\n    path: ../packages/ui\n') },
      ),
    ],
  ])('are part of it: %s', (_, files) => {
    expect(unitPaths(files)).toEqual(['packages/ads/lib/reef.dart']);
    const rules = findingsOf(files, title).map(({ rule }) => rule);
    expect(rules.filter((rule) => /dependency|not-locked|install/.test(rule))).toEqual([]);
    const result = holds(files, title);
    expect(text(result.after['app/pubspec.yaml'])).toBe(files['app/pubspec.yaml']);
    expect(Object.keys(result.after)).toContain('packages/ads/lib/ads/placebook.dart');
    const gone = written(result.after, unplan(result.after, title, 'cobalt-heron'));
    for (const [path, content] of Object.entries(gone))
      if (path.endsWith('pubspec.yaml')) expect(text(content)).not.toContain('cobalt_heron_ads');
  });

  it('are none of it where nothing asks for them', () => {
    const files = beside({
      ...adsInPackage,
      'packages/dev/pubspec.yaml': packageOf('kelp_dev'),
    });
    expect(unitPaths(files)).toEqual([]);
  });

  it('import the placebook by the name of the package that all can use', () => {
    const files = beside(
      {
        'packages/ads/pubspec.yaml': packageOf('kelp_ads', heron),
        'packages/ads/lib/reef.dart': screen(choice),
      },
      {
        'pubspec.yaml': pubspec(`${heron}  kelp_ads:\n    path: ../packages/ads\n`),
        'lib/other.dart': screen(choice),
      },
    );
    const { after } = holds(files, title, asked({ callSites: true }));
    for (const path of ['packages/ads/lib/reef.dart', 'app/lib/other.dart']) {
      expect(text(after[path])).toContain("import 'package:kelp_ads/ads/placebook.dart';");
      expect(text(after[path])).toContain('Placebook.footer.unit(PlacebookNetwork.cobaltHeron)');
    }
  });

  it('keep an ID that they could not take from the application’s placebook', () => {
    const apart = {
      'packages/ads/pubspec.yaml': packageOf('kelp_ads', heron),
      'packages/ads/lib/reef.dart': screen(choice),
      'packages/shop/pubspec.yaml': packageOf('kelp_shop', heron),
      'packages/shop/lib/shop.dart': screen(choice),
    };
    const files = beside(apart, {
      'pubspec.yaml': pubspec(
        '  kelp_ads:\n    path: ../packages/ads\n  kelp_shop:\n    path: ../packages/shop\n',
      ),
    });
    const { after } = holds(files, title, asked({ callSites: true }));
    expect(Object.keys(after)).toContain('app/lib/ads/placebook.dart');
    expect(text(after['packages/ads/lib/reef.dart'])).toBe(apart['packages/ads/lib/reef.dart']);
  });

  it('share what stands in part files', () => {
    const files = beside(
      {},
      {
        'lib/reef.dart': screen('_unit', "part 'ids.dart';"),
        'lib/ids.dart': `part of 'reef.dart';\n\nString get _unit => ${choice};\n`,
      },
    );
    const call = survey(files).facts.find((fact) => fact.kind === 'call' && fact.action === 'load');
    expect(call?.code?.argument?.ids.length).toBeGreaterThan(0);
  });
});
