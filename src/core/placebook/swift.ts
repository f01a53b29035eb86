import { camelCase, placebookMark, type PlacebookStage } from './model.js';

/** What a Swift placebook needs besides its contents. */
export interface SwiftOptions {
  title: string;
  /** The compilation condition that holds in the configurations of the test stage. */
  testCondition: string;
}

/** A Swift placebook: one file for both stages, which picks by a compilation condition. */
export function swiftPlacebook(
  test: PlacebookStage,
  production: PlacebookStage,
  { title, testCondition }: SwiftOptions,
): string {
  const lines = [
    `// ${placebookMark}. Do not edit: change the roster and run "syndexa wire" again.`,
    '',
    '/// A placement of the title, with its unit ID on each network.',
    'struct Placement {',
    '    let name: String',
    '    let format: String',
    '    let units: [String: String]',
    '}',
    '',
    `/// The placements of ${title}, for the stage that is being compiled.`,
    'enum Placebook {',
    `    #if ${testCondition}`,
    ...stageLines('test', test),
    '    #else',
    ...stageLines('production', production),
    '    #endif',
    '',
    '    /// Every placement, in the order of the roster.',
    `    static let all: [Placement] = [${production.placements.map(({ name }) => camelCase(name)).join(', ')}]`,
    '}',
    '',
  ];
  return lines.join('\n');
}

function stageLines(stage: string, book: PlacebookStage): string[] {
  const lines = [`    static let stage = ${quoted(stage)}`];
  const apps = Object.entries(book.apps).sort(([a], [b]) => (a < b ? -1 : 1));
  if (apps.length > 0) {
    lines.push(
      '',
      '    /// App IDs of the networks that take them in their start-up call.',
      '    enum Apps {',
    );
    for (const [network, app] of apps)
      lines.push(`        static let ${camelCase(network)} = ${quoted(app)}`);
    lines.push('    }');
  }
  for (const { name, format, where, units } of book.placements) {
    lines.push(
      '',
      `    /// ${(where ?? name).replace(/\s+/g, ' ')}`,
      `    static let ${camelCase(name)} = Placement(`,
    );
    lines.push(`        name: ${quoted(name)},`, `        format: ${quoted(format)},`);
    const sorted = Object.entries(units).sort(([a], [b]) => (a < b ? -1 : 1));
    if (sorted.length === 0) lines.push('        units: [:]');
    else {
      const rows = sorted.map(([network, unit]) => `            ${quoted(network)}: ${quoted(unit)},`);
      lines.push('        units: [', ...rows, '        ]');
    }
    lines.push('    )');
  }
  return lines;
}

function quoted(value: string): string {
  return `"${value.replace(/[\\"]/g, '\\$&')}"`;
}
