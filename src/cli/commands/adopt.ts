import { printableValue } from '../../core/text/printable.js';
import type { TitleDraft } from '../../core/adopting/model.js';
import { withService } from '../connect.js';
import { readNamed } from '../read-file.js';
import { exit, type Io, type Paint, printJson } from '../io.js';
import { placeText } from '../render/places.js';
import { sendTree } from '../send-tree.js';
import { writeNamed } from '../write-file.js';

export interface AdoptOptions {
  id?: string;
  name?: string;
  out?: string;
  yes?: boolean;
  json?: boolean;
}

/** `syndexa title adopt DIR...`. */
export function adopt(
  io: Io,
  paint: Paint,
  directories: readonly string[],
  options: AdoptOptions,
): Promise<number> {
  return withService(io, async (client) => {
    const snapshots: string[] = [];
    for (const directory of directories) snapshots.push((await sendTree(client, io, directory)).snapshot);
    const { id, name } = options;
    const draft = await client.call('draftTitle', {
      body: { snapshots, ...(id === undefined ? {} : { id }), ...(name === undefined ? {} : { name }) },
    });
    if (options.out !== undefined) writeNamed(io, options.out, draft.document, { fresh: true });
    if (options.yes) await client.call('takeDraft', { body: { document: draft.document } });
    if (options.json) printJson(io, draft);
    else io.out(`${draftText(draft, paint)}\n${nextText(draft, directories, options, paint)}`);
    return exit.clean;
  });
}

/** `syndexa title take FILE`. */
export function take(io: Io, file: string, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const document = await readNamed(io, file);
    const records = await client.call('takeDraft', { body: { document } });
    if (options.json) printJson(io, records);
    else io.out(`Added ${records.map(({ id }) => id).join(', ')}.\n`);
    return exit.clean;
  });
}

function draftText(draft: TitleDraft, paint: Paint): string {
  const { document } = draft;
  const { evidence, open } = printableValue(draft);
  const shape = { certain: '●', likely: '◐', guess: '○' };
  return [
    document,
    paint.bold('What the draft is based on'),
    ...evidence.map(
      ({ field, value, confidence, why, place }) =>
        `  ${shape[confidence]} ${confidence.padEnd(7)} ${field} = ${paint.bold(value)}\n            ${paint.dim(`${why}${place ? `  ${placeText(place)}` : ''}`)}`,
    ),
    ...(open.length > 0 ? ['', paint.yellow('What is left out')] : []),
    ...open.map(
      ({ what, why, place }) => `  ${what}: ${why}${place ? paint.dim(`  ${placeText(place)}`) : ''}`,
    ),
    '',
  ].join('\n');
}

function nextText(
  { id }: TitleDraft,
  directories: readonly string[],
  options: AdoptOptions,
  paint: Paint,
): string {
  if (options.yes) return `${paint.green('✔ added to the roster')} as ${id}.\n`;
  if (options.out !== undefined)
    return `Written to ${options.out}. Edit it, then add it: syndexa title take ${options.out}\n`;
  return `${paint.dim('Nothing was saved. To edit the draft first:')} syndexa title adopt ${directories.join(' ')} --out ${id}.yaml\n`;
}
