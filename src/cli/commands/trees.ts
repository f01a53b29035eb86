import { resolve, sep } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Severity } from '../../core/checks/model.js';
import { severityNames } from '../../core/words/names.js';
import type { Survey } from '../../core/facts/model.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { demandCompared } from '../compared.js';
import { withService } from '../connect.js';
import { callFollowed } from '../progress.js';
import { sendTree } from '../send-tree.js';

export interface TreeOptions {
  title?: string;
  json?: boolean;
}

/** `syndexa survey DIR`. */
export function survey(
  io: Io,
  paint: Paint,
  directory: string,
  options: TreeOptions & { explain?: string },
): Promise<number> {
  return withService(io, async (client) => {
    const { snapshot } = await sendTree(client, io, directory);
    const call = { params: { snapshot }, body: { title: options.title ?? null } };
    const result = await callFollowed(io, client, 'survey', call, 'surveying');
    if (options.explain !== undefined) return explained(io, paint, result, options.explain, options.json);
    if (options.json) printJson(io, result);
    else io.prose((await import('../render/survey.js')).surveyText(result, paint));
    return exit.clean;
  });
}

/** The facts that a question fits, in sentences; none is a wrong question. */
async function explained(
  io: Io,
  paint: Paint,
  survey: Survey,
  question: string,
  json: boolean | undefined,
): Promise<number> {
  const { explain } = await import('../../core/facts/explain.js');
  const found = explain(survey, question);
  if (json) printJson(io, found);
  else
    for (const { says, because } of found)
      io.out(`${paint.bold(says)}\n${because.map((line) => `  ${line}\n`).join('')}\n`);
  if (found.length > 0) return exit.clean;
  throw new CommandError(
    `No fact fits ${JSON.stringify(question)}.`,
    exit.wrongUse,
    'Use words from the survey: a kind such as app-id, a network, an ID, a variant, path:line.',
  );
}

export interface CheckOptions extends TreeOptions {
  failOn: Severity | 'never';
  format: 'text' | 'json' | 'sarif' | 'junit';
  against?: string;
  verbose?: boolean;
  anyTitle?: boolean;
}

/** `syndexa check DIR`. */
export function check(io: Io, paint: Paint, directory: string, options: CheckOptions): Promise<number> {
  return withService(io, async (client) => {
    const { snapshot } = await sendTree(client, io, directory);
    const body = { title: options.title ?? null, against: options.against ?? null, failOn: options.failOn };
    const call = { params: { snapshot }, body };
    const report = await callFollowed(io, client, 'check', call, 'checking');
    if (options.format === 'junit')
      io.out(await client.text('check', { ...call, headers: { Accept: 'application/junit+xml' } }));
    else if (options.format === 'sarif') {
      const log = await client.text('check', { ...call, headers: { Accept: 'application/sarif+json' } });
      printJson(io, withRoot(JSON.parse(log) as SarifLog, resolve(io.cwd, directory)));
    } else if (options.json || options.format === 'json') printJson(io, report);
    else
      io.prose(
        (await import('../render/check.js')).checkText(report, paint, {
          width: io.width,
          directory,
          verbose: options.verbose === true,
          anyTitle: options.anyTitle === true,
        }),
      );
    demandCompared({
      compared: report.compared,
      title: report.title,
      directory,
      anyTitle: options.anyTitle === true,
    });
    if (options.failOn === 'never') return exit.clean;
    const counted = severityNames.slice(0, severityNames.indexOf(options.failOn) + 1);
    return counted.some((severity) => report.summary[severity] > 0) ? exit.findings : exit.clean;
  });
}

interface SarifLog {
  runs: { originalUriBaseIds: Record<string, { uri?: string }> }[];
}

/** A log that says where the folder lies which its paths are relative to. */
function withRoot(log: SarifLog, folder: string): SarifLog {
  for (const base of log.runs.flatMap(({ originalUriBaseIds = {} }) => Object.values(originalUriBaseIds)))
    base.uri = pathToFileURL(`${folder}${sep}`).href;
  return log;
}
