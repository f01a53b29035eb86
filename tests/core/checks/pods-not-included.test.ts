import { expect } from 'vitest';
import { podsNotIncluded } from '../../../src/core/checks/rules/build-pods-not-included.js';
import { ruleCases } from '../../support/rules.js';
import { iosFiles } from '../../support/trees.js';

const project = iosFiles()['Kelp.xcodeproj/project.pbxproj'] ?? '';
/** The small project with a base file for its release configuration. */
const based = (text: string, more: Record<string, string | null> = {}) =>
  iosFiles({
    'Kelp.xcodeproj/project.pbxproj': project
      .replace(
        'AA0000000000000000000009 /* Release */ = {\n\t\t\tisa = XCBuildConfiguration;',
        'AA0000000000000000000009 /* Release */ = {\n\t\t\tisa = XCBuildConfiguration;\n\t\t\tbaseConfigurationReference = AA0000000000000000000010 /* Release.xcconfig */;',
      )
      .replace(
        'AA0000000000000000000003 = {',
        'AA0000000000000000000010 /* Release.xcconfig */ = {isa = PBXFileReference; path = Config/Release.xcconfig; sourceTree = "<group>"; };\n\t\tAA0000000000000000000003 = {',
      )
      .replace(
        'children = (\n\t\t\t\tAA0000000000000000000004',
        'children = (\n\t\t\t\tAA0000000000000000000010,\n\t\t\t\tAA0000000000000000000004',
      ),
    'Config/Release.xcconfig': text,
    ...more,
  });
const pods = 'Pods/Target Support Files/Pods-Kelp/Pods-Kelp.release.xcconfig';

ruleCases(podsNotIncluded, {
  clean: [
    { name: 'no base file', files: iosFiles() },
    { name: 'included', files: based(`#include "../${pods}"\nA = 1\n`) },
    { name: 'included if it is there', files: based(`#include? "${pods}"\n`) },
    {
      name: 'included by an included file',
      files: based('#include "Shared.xcconfig"\n', { 'Config/Shared.xcconfig': `#include? "../${pods}"\n` }),
    },
    { name: 'no pods', files: based('A = 1\n', { Podfile: null, 'Podfile.lock': null }) },
    { name: 'written by Flutter before each build', files: based('#include "Generated.xcconfig"\n') },
  ],
  faulty: [
    {
      name: 'not included',
      byHand: { edits: [['Config/Release.xcconfig', 'A = 1\n', `#include? "../${pods}"\nA = 1\n`]] },
      files: based('A = 1\n'),
      findings: [
        {
          variants: ['Release'],
          place: expect.objectContaining({ path: 'Config/Release.xcconfig' }),
          mend: expect.stringContaining(`#include? "../${pods}"`),
        },
      ],
    },
    {
      name: 'another include',
      files: based('#include? "Other.xcconfig"\n// #include "Pods-Kelp.release.xcconfig"\n'),
      findings: [{ platform: 'ios' }],
    },
  ],
});
