import type { ReadProblem, Span } from '../../text/problem.js';

/** A setting of an `.xcconfig` file. A condition such as `[sdk=iphoneos*]` stays part of the key. */
export interface XcSetting extends Span {
  key: string;
  value: string;
}

export interface XcInclude extends Span {
  path: string;
  /** Written `#include?`: it may be missing. */
  optional: boolean;
}

/** Reads an Xcode build configuration file: settings and includes, in order, comments left out. */
export function readXcconfig(text: string): {
  settings: XcSetting[];
  includes: XcInclude[];
  problems: ReadProblem[];
} {
  const settings: XcSetting[] = [];
  const includes: XcInclude[] = [];
  const problems: ReadProblem[] = [];
  let at = 0;
  for (const line of text.split('\n')) {
    const start = at;
    at += line.length + 1;
    const code = line.replace(/\/\/.*$/, '').trim();
    const end = start + line.trimEnd().length;
    if (code === '') continue;
    const include = /^#include(\?)?\s*"([^"]*)"$/.exec(code);
    const setting = /^([A-Za-z_]\w*(?:\[[^\]]*\])*)\s*=\s*(.*?);?$/.exec(code);
    if (include) includes.push({ path: include[2] ?? '', optional: include[1] === '?', start, end });
    else if (setting) settings.push({ key: setting[1] ?? '', value: (setting[2] ?? '').trim(), start, end });
    else problems.push({ message: 'This line is neither a setting nor an include.', start, end });
  }
  return { settings, includes, problems };
}
