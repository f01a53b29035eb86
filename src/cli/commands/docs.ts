import { valueAt } from '../../core/text/own-values.js';
import { mkdir } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import type { Command } from 'commander';
import { settings, type Setting } from '../../api/settings.js';
import { openApiDocument } from '../../api/openapi.js';
import { schemaDocuments } from '../../api/schemas.js';
import { jsonPage } from './json-page.js';
import { withNames } from '../../core/checks/placeholders.js';
import { rules } from '../../core/checks/rules/index.js';
import { CommandError, exit, type Io, printJson } from '../io.js';
import { version } from '../version.js';
import { textToChange } from '../read-file.js';
import { writeNamed } from '../write-file.js';

/** `syndexa roster schema` and `syndexa network schema`. */
export function printSchema(io: Io, name: string): Promise<number> {
  printJson(io, valueAt(schemaDocuments(), name));
  return Promise.resolve(exit.clean);
}

/** `syndexa docs --write DIR`: every page that is made from the code; with `--check`, whether they are current. */
export async function writeDocs(
  io: Io,
  program: Command,
  options: { write: string; check?: boolean },
): Promise<number> {
  const stale: string[] = [];
  const guide = await textToChange(io, join(options.write, 'guide.md'));
  const all = { ...pages(program), ...(guide === null ? {} : { 'guide.md': guideWithSettings(guide) }) };
  for (const [name, text] of Object.entries(all)) {
    const path = join(resolve(io.cwd, options.write), name);
    if ((await textToChange(io, path)) === text) continue;
    stale.push(name);
    if (options.check) continue;
    await mkdir(dirname(path), { recursive: true });
    writeNamed(io, path, text);
  }
  if (options.check && stale.length > 0)
    throw new CommandError(
      `These pages are not current: ${stale.join(', ')}.`,
      exit.findings,
      'Run npm run docs.',
    );
  io.out(stale.length > 0 ? `Written: ${stale.join(', ')}\n` : 'Every page is current.\n');
  return exit.clean;
}

function pages(program: Command): Record<string, string> {
  const schemas = schemaDocuments();
  return {
    'commands.md': commandsPage(program),
    'rules.md': rulesPage(),
    ...Object.fromEntries(rules.map((rule) => [rulePath(rule.meta.id), rulePage(rule)])),
    'json.md': jsonPage(made),
    'api/openapi.json': `${JSON.stringify(openApiDocument(version), null, 2)}\n`,
    ...Object.fromEntries(
      Object.entries(schemas).map(([name, schema]) => [
        `schemas/${name}.schema.json`,
        `${JSON.stringify(schema, null, 2)}\n`,
      ]),
    ),
  };
}

/** The guide, in which the table of settings is the one of the code. */
function guideWithSettings(guide: string): string {
  const lines = [
    '',
    '| environment variable | default | range | what it limits |',
    '| --- | --- | --- | --- |',
    ...Object.values<Setting>(settings).map(({ variable, unit, usual, usualIs, min, max, about }) => {
      const shown = (value: number) => `${value.toLocaleString('en-GB')} ${unit}`.trim();
      return `| \`${variable}\` | ${usualIs ?? shown(usual)} | ${min.toLocaleString('en-GB')} … ${max.toLocaleString('en-GB')} | ${about} |`;
    }),
    '',
    '',
  ];
  return guide.replace(
    /(<!-- settings: [^>]*-->\n)[^]*(<!-- end of settings -->)/,
    (_, start: string, end: string) => `${start}${lines.join('\n')}${end}`,
  );
}

const made = '<!-- Made from the code by `npm run docs`; edit the code, not this page. -->';

function commandsPage(program: Command): string {
  const lines = [
    '# Commands',
    '',
    made,
    '',
    'Every command takes `--help`. Exit codes: 0 clean; 1 findings at or above `--fail-on`; 2 wrong use or unreadable input; 3 service not reachable; 4 refused.',
    '',
  ];
  const walk = (command: Command, path: string) => {
    for (const sub of command.commands) {
      const hidden = (sub as unknown as { _hidden: boolean })._hidden;
      if (hidden || sub.name() === 'help') continue;
      const name = `${path} ${sub.name()}`;
      if (sub.commands.length > 0) {
        walk(sub, name);
        continue;
      }
      const usage = sub.registeredArguments
        .map((argument) => (argument.required ? `<${argument.name()}>` : `[${argument.name()}]`))
        .join(' ');
      lines.push(`## \`${`${name} ${usage}`.trim()}\``, '');
      if (sub.description())
        lines.push(
          `${sub.description()}.`.replace(/^./, (letter) => letter.toUpperCase()),
          '',
        );
      for (const option of sub.options) {
        const choices = option.argChoices ? ` (${option.argChoices.join(', ')})` : '';
        lines.push(
          `- \`${option.flags}\`: ${option.description}${choices}${option.defaultValue === undefined ? '' : `; default: ${String(option.defaultValue)}`}`,
        );
      }
      lines.push('');
    }
  };
  walk(program, 'syndexa');
  return `${lines.join('\n').trimEnd()}\n`;
}

/** Where the page of a rule lies, below the documents. */
const rulePath = (id: string) => `rules/${id.replace('/', '-')}.md`;
const sortedRules = () => [...rules].sort((a, b) => (a.meta.id < b.meta.id ? -1 : 1));

/** All rules by group, each with a link to its page. */
function rulesPage(): string {
  const lines = [
    '# Rules',
    '',
    made,
    '',
    'A `blocker` breaks the build, stops the app, or costs money or the account. A `warning` should be looked at. A `note` points out what reading alone cannot decide.',
  ];
  let group = '';
  for (const { meta } of sortedRules()) {
    const own = meta.id.split('/')[0] ?? '';
    if (own !== group)
      lines.push('', `## ${own}`, '', '| rule | severity | if it ships |', '| --- | --- | --- |');
    group = own;
    lines.push(
      `| [${meta.id}](${rulePath(meta.id)}) | ${meta.severity} | ${meta.ifShipped.replace(/\|/g, '\\|')} |`,
    );
  }
  return `${lines.join('\n').trimEnd()}\n`;
}

function rulePage({ meta }: (typeof rules)[number]): string {
  const others = Object.values(meta.otherMends ?? {});
  const lines = [
    `# ${meta.id}`,
    '',
    made,
    '',
    `**${meta.severity}**${meta.needsTitle ? '; compares with a title of the roster' : ''}`,
    '',
    '## If it ships',
    '',
    meta.ifShipped,
    '',
    '## How to fix it',
    '',
    ...(meta.byWiring ? [meta.byWiring, '', `By hand: ${meta.mend}`] : [meta.mend]),
    '',
    ...(others.length > 0
      ? ['Or, depending on where it is:', '', ...others.map((mend) => `- ${mend}`), '']
      : []),
    'To accept a finding until a given day, say why:',
    '',
    '```sh',
    'syndexa accept FINGERPRINT --title TITLE --reason "why it is acceptable" --until 2027-03-31',
    '```',
    '',
    '## What it says',
    '',
    ...Object.values(meta.messages).map((text) => `- ${withNames(text)}`),
    '',
    '[All rules](../rules.md)',
    '',
  ];
  return lines.join('\n');
}
