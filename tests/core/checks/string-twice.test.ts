import { stringTwice } from '../../../src/core/checks/rules/build-string-twice.js';
import { ruleCases } from '../../support/rules.js';
import { androidFiles, gradle } from '../../support/trees.js';

const strings = (...values: [string, string][]) =>
  `<resources>\n${values.map(([name, value]) => `    <string name="${name}">${value}</string>`).join('\n')}\n</resources>\n`;
const id = 'CH-A-310772-QK4T8W2N';
const resValue = (where: string) =>
  gradle(`    ${where} {\n        resValue("string", "heron", "${id}")\n    }`);

ruleCases(stringTwice, {
  clean: [
    {
      name: 'one per source set, the stronger over the weaker',
      files: androidFiles({ 'app/src/main/res/values/ids.xml': strings(['heron', id]) }),
    },
    {
      name: 'the same name in another language',
      files: androidFiles({ 'app/src/release/res/values-de/ids.xml': strings(['heron', id]) }),
    },
    {
      name: 'twice, and no ID of a network',
      files: androidFiles({
        'app/src/main/res/values/a.xml': strings(['label', 'one']),
        'app/src/main/res/values/b.xml': strings(['label', 'two']),
      }),
    },
    { name: 'by a script alone', files: androidFiles({ 'app/build.gradle.kts': resValue('defaultConfig') }) },
  ],
  faulty: [
    {
      name: 'in two files of a source set',
      byHand: { removes: ['app/src/release/res/values/more.xml'] },
      files: androidFiles({ 'app/src/release/res/values/more.xml': strings(['heron', id]) }),
      findings: [
        {
          message:
            'The string heron with an ID of Cobalt Heron is defined at app/src/release/res/values/ids.xml:2 already.',
          variants: ['release'],
        },
      ],
    },
    {
      name: 'twice in one file',
      files: androidFiles({ 'app/src/release/res/values/ids.xml': strings(['heron', id], ['heron', id]) }),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'in a file of main, and by a script',
      files: androidFiles({
        'app/build.gradle.kts': resValue('defaultConfig'),
        'app/src/main/res/values/ids.xml': strings(['heron', id]),
      }),
      findings: [{ variants: ['debug', 'release'] }],
    },
  ],
});
