import type { AttributionLint } from '../../api/attribution.js';
import { CannotMergeError, mergeIntoList } from '../../core/formats/attribution-list/merge.js';
import { compareAttribution, neededIds } from '../../core/roster/attribution-needs.js';
import { mergedIds } from '../../core/standards/skadnetwork.js';
import { readAttributionList } from '../../core/formats/attribution-list/read.js';
import { textDocument } from '../../core/text/document.js';
import { unifiedPatch } from '../../core/text/patch.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';
import type { Service } from '../service.js';

/** SKAdNetwork lists: what is needed, what a published list says, merging, and what a tree has of it. */
export const attributionHandlers = {
  attributionNeeds: (_call, service) => ({
    needed: needed(service),
    ids: mergedIds(needed(service).map(({ ids }) => ids)),
  }),
  lintAttribution: ({ body }) => linted(body.text),
  mergeAttribution: ({ body }, service) => {
    const lists = body.lists.map(idsOf);
    const ids = mergedIds([...needed(service).map((one) => one.ids), ...lists]);
    if (body.text.trim() !== '') idsOf(body.text);
    const text = merged(body.text, ids);
    const patch = unifiedPatch([
      { path: body.path, before: body.text === '' ? null : body.text, after: text },
    ]);
    return { text, patch: text === body.text ? '' : patch, ids };
  },
  compareAttribution: async ({ params, body, signal }, service) => {
    const survey = await service.treeWork.survey({ ...params, title: body.title, signal });
    const asked =
      survey.title === null
        ? needed(service)
        : neededIds(
            { syndexa: 1, titles: { [survey.title]: service.roster.get(survey.title).title } },
            service.profiles.profiles(),
          );
    const variants = survey.editions
      .filter(({ platform }) => platform === 'ios')
      .flatMap((edition) => edition.variants.map(({ name }) => name));
    return compareAttribution(survey.facts, variants, asked, body.lists.map(idsOf));
  },
} satisfies Partial<Handlers>;

function merged(text: string, ids: readonly string[]): string {
  try {
    return mergeIntoList(text, ids);
  } catch (error) {
    if (!(error instanceof CannotMergeError)) throw error;
    const { message, at, fix } = error;
    throw new ServiceError('invalid', `The list cannot be merged into: ${message}`, {
      errors: [{ field: 'text', message, place: textDocument(text).lines.at(at) }],
      fix,
    });
  }
}

function needed(service: Service) {
  return neededIds(service.roster.roster(), service.profiles.profiles());
}

/** The identifiers of a list; an error when it is none. */
function idsOf(text: string): string[] {
  const { form, problems, ids } = readAttributionList(text);
  const [problem] = problems;
  if (problem || form === 'unknown') {
    const at = textDocument(text).lines.at(problem?.start ?? 0);
    const message = problem?.message ?? 'It is not a list.';
    throw new ServiceError('invalid', `The list cannot be read: ${message}`, {
      errors: [{ field: 'list', message, place: at }],
      fix: 'Pass a property list or a part of one, other XML, or JSON, as networks publish them.',
    });
  }
  return ids.flatMap(({ id }) => id ?? []);
}

function linted(text: string): AttributionLint {
  const { form, ids, problems } = readAttributionList(text);
  const { lines } = textDocument(text);
  const seen = new Set<string>();
  const faults = ids.flatMap(({ written, id, start }) => {
    const twice = id !== null && seen.has(id);
    if (id !== null) seen.add(id);
    if (id === null)
      return [
        {
          ...lines.at(start),
          message: `“${written.slice(0, 80)}” is not an identifier.`,
          fix: 'Write letters and digits, followed by .skadnetwork.',
        },
      ];
    if (id !== written)
      return [
        {
          ...lines.at(start),
          message: `“${written}” is not written in its standard form.`,
          fix: `Write ${id}.`,
        },
      ];
    return twice ? [{ ...lines.at(start), message: `${id} is in the list twice.`, fix: 'Remove one.' }] : [];
  });
  return {
    form,
    ids: mergedIds([ids.flatMap(({ id }) => id ?? [])]),
    problems: [
      ...problems.map(({ message, start }) => ({
        ...lines.at(start),
        message,
        fix: 'Correct it at this place.',
      })),
      ...faults,
    ],
  };
}
