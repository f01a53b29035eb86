import { camelCase, placebookMark, type PlacebookStage } from './model.js';

/** What a Kotlin placebook needs besides its contents. */
export interface KotlinOptions {
  packageName: string;
  title: string;
  stage: string;
}

/** A Kotlin placebook: one object, for one stage; each stage's file stands in its own source sets. */
export function kotlinPlacebook(book: PlacebookStage, { packageName, title, stage }: KotlinOptions): string {
  const networks = [
    ...new Set([...Object.keys(book.apps), ...book.placements.flatMap(({ units }) => Object.keys(units))]),
  ].sort();
  const lines = [
    `// ${placebookMark}. Do not edit: change the roster and run "syndexa wire" again.`,
    '',
    `package ${packageName}`,
    '',
    '/** A placement of the title, with its unit ID on each network. */',
    'data class Placement(',
    '    val name: String,',
    '    val format: String,',
    '    val units: Map<String, String>,',
    ')',
    '',
    `/** The placements of ${title} for the ${stage} stage. */`,
    'object Placebook {',
    `    const val STAGE = ${quoted(stage)}`,
  ];
  if (Object.keys(book.apps).length > 0) {
    lines.push(
      '',
      '    /** App IDs of the networks that take them in their start-up call. */',
      '    object Apps {',
    );
    for (const network of networks) {
      const app = book.apps[network];
      if (app !== undefined) lines.push(`        const val ${camelCase(network)} = ${quoted(app)}`);
    }
    lines.push('    }');
  }
  for (const { name, format, where, units } of book.placements) {
    lines.push(
      '',
      `    /** ${comment(where ?? name)} */`,
      `    val ${camelCase(name)} =`,
      '        Placement(',
    );
    lines.push(`            name = ${quoted(name)},`, `            format = ${quoted(format)},`);
    lines.push('            units =', '                mapOf(');
    for (const network of networks) {
      const unit = units[network];
      if (unit !== undefined) lines.push(`                    ${quoted(network)} to ${quoted(unit)},`);
    }
    lines.push('                ),', '        )');
  }
  const names = book.placements.map(({ name }) => camelCase(name)).join(', ');
  lines.push(
    '',
    '    /** Every placement, in the order of the roster. */',
    `    val all = listOf<Placement>(${names})`,
    '}',
    '',
  );
  return lines.join('\n');
}

function quoted(value: string): string {
  return `"${value.replace(/[\\"$]/g, '\\$&')}"`;
}

function comment(text: string): string {
  return text.replace(/\*\//g, '* /').replace(/\s+/g, ' ');
}
