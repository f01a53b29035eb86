import { dayText, readDay } from '../../core/tally/days.js';
import { writerOf } from '../context.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';
import { withProgress } from '../server-events.js';

/** Daily numbers: imports and figures. */
export const tallyHandlers = {
  importTally: ({ query, request }, service) =>
    service.tallying.importTable(query, request, writerOf(service, request)),
  fetchTally: ({ body, form, request, response, signal }, service) =>
    withProgress(service, { form, response, name: 'fetch' }, (progress) =>
      service.tallying.fetch(body, writerOf(service, request), progress, signal),
    ),
  listImports: (_call, { tallies }) =>
    tallies.imports().map(({ network, source, name, at, who, from, to, rows, complete }) => ({
      network,
      source,
      name,
      at,
      who,
      days: from === null || to === null ? null : { from: dayText(from), to: dayText(to) },
      rows,
      complete,
    })),
  figures: ({ query }, { figuring }) => figuring.figures(query),
  compareTally: ({ query }, { figuring }) => figuring.compare(query),
  tallyWeek: ({ query }, { figuring }) => figuring.week(query.title),
  silentTally: ({ query: { title } }, service) => {
    const { tallyHistory, roster, tallies } = service;
    if (title !== undefined) roster.get(title);
    const findings = (title === undefined ? [...roster.titleIds(), null] : [title])
      .flatMap((id) => tallyHistory.findings(id).map((finding) => ({ ...finding, title: id })))
      .sort((a, b) => (b.stake?.micros ?? 0) - (a.stake?.micros ?? 0));
    const last = tallies.lastDays().map(({ network, day }) => ({ network, day: dayText(day) }));
    return { title: title ?? null, last, findings };
  },
  listReleases: ({ params }, { tallies, roster }) => {
    roster.get(params.title);
    return tallies.releases(params.title).map((release) => ({ ...release, day: dayText(release.day) }));
  },
  setRelease: ({ params, body, request }, service) => {
    const { title } = service.roster.get(params.title);
    if (!title.editions[body.platform])
      throw new ServiceError('invalid', `${params.title} has no edition for ${body.platform}.`, {
        fix: `It has ${Object.keys(title.editions).join(' and ')}.`,
      });
    const day = readDay(body.day) ?? 0;
    const { who } = writerOf(service, request);
    service.tallies.setRelease({ ...body, title: params.title, day }, who);
    service.events.tell({ kind: 'title', title: params.title });
    return {};
  },
  dropRelease: ({ params, query }, service) => {
    if (!service.tallies.dropRelease({ title: params.title, ...query }))
      throw new ServiceError('not-found', `No release ${query.version} of ${params.title} is on record.`, {
        fix: `syndexa tally release ${params.title} lists those that are.`,
      });
    service.events.tell({ kind: 'title', title: params.title });
    return {};
  },
  setRates: ({ body }, { tallying }) => tallying.setRates(body.table),
} satisfies Partial<Handlers>;
