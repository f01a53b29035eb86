import { escapeXml } from '../text/escape-xml.js';

// JUnit XML as continuous integration servers read it. Source: the `junit-10.xsd` that servers publish.

/** One test case: passed unless it says otherwise. */
export interface JunitCase {
  suite: string;
  name: string;
  file?: { path: string; line: number } | undefined;
  failure?: { type: string; message: string; text: string } | undefined;
  skipped?: string | undefined;
}

/** Cases as a document, a suite per name, in the order of the names. */
export function junitDocument(cases: readonly JunitCase[]): string {
  const suites = [...new Set(cases.map(({ suite }) => suite))].sort();
  const failures = cases.filter(({ failure }) => failure).length;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites name="Syndexa" tests="${cases.length}" failures="${failures}" errors="0">`,
    ...suites.flatMap((name) =>
      suiteLines(
        name,
        cases.filter(({ suite }) => suite === name),
      ),
    ),
    '</testsuites>',
    '',
  ].join('\n');
}

function suiteLines(name: string, cases: readonly JunitCase[]): string[] {
  const failures = cases.filter(({ failure }) => failure).length;
  const skipped = cases.filter((each) => each.skipped !== undefined).length;
  const numbers = `tests="${cases.length}" failures="${failures}" errors="0" skipped="${skipped}"`;
  return [`  <testsuite name="${escape(name)}" ${numbers}>`, ...cases.flatMap(caseLines), '  </testsuite>'];
}

function caseLines({ suite, name, file, failure, skipped }: JunitCase): string[] {
  const at = file ? ` file="${escape(file.path)}" line="${file.line}"` : '';
  const head = `    <testcase classname="${escape(suite)}" name="${escape(name)}"${at}`;
  if (skipped !== undefined)
    return [`${head}>`, `      <skipped message="${escape(skipped)}"/>`, '    </testcase>'];
  if (!failure) return [`${head}/>`];
  const { type, message, text } = failure;
  return [
    `${head}>`,
    `      <failure type="${type}" message="${escape(message)}">${escape(text)}</failure>`,
    '    </testcase>',
  ];
}

/** Text for an attribute or an element; what XML 1.0 cannot hold becomes a replacement character. */
function escape(text: string): string {
  return escapeXml(text.replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd]/g, '\ufffd')).replace(/\n/g, '&#10;');
}
