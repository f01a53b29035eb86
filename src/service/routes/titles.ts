import { isUsedBy } from '../../core/roster/used.js';
import { withoutNetwork } from '../../core/roster/without.js';
import { publisherProblems } from '../../core/roster/credentials.js';
import { valueAt } from '../../core/text/own-values.js';
import { Slug } from '../../core/words/words.js';
import { writerOf } from '../context.js';
import { refuse, ServiceError } from '../errors.js';
import { conditionOf, setVersion } from '../conditions.js';
import { created, nextPage, type Handlers } from '../route.js';
import { noPlacement } from '../title-work.js';

/** Titles, placements, IDs, the board, and the publisher. */
export const titleHandlers = {
  listTitles: ({ query, request, response }, { roster }) => {
    const { summaries, next } = roster.page(query);
    if (next !== undefined) nextPage(request, response, next);
    return summaries;
  },
  addTitle: ({ body, request, response }, service) => {
    const writer = writerOf(service, request);
    const record = service.titleWork.save(body.id, body.title, undefined, 'new', writer);
    setVersion(response, record.version);
    created(response, `/titles/${record.id}`);
    return record;
  },
  showTitle: ({ params, response }, { roster }) => {
    const record = roster.get(params.title);
    setVersion(response, record.version);
    return record;
  },
  changeTitle: ({ params, body, request, response }, service) => {
    const before = service.roster.get(params.title);
    const next = { ...before.title, ...body };
    const writer = writerOf(service, request);
    const record = service.titleWork.save(before.id, next, before, conditionOf(request), writer);
    setVersion(response, record.version);
    return record;
  },
  removeTitle: ({ params, request }, service) => {
    const { id } = service.roster.get(params.title);
    service.roster.save(id, null, conditionOf(request), writerOf(service, request));
    service.events.tell({ kind: 'title', title: id });
    return {};
  },
  leaveNetwork: ({ params, request, response }, service) => {
    const before = service.roster.get(params.title);
    if (!isUsedBy(before.title, params.network))
      throw new ServiceError('not-found', `${before.id} does not use ${params.network}.`, {
        fix: `It uses ${Object.keys(before.title.networks).join(', ') || 'no network'}.`,
      });
    const next = withoutNetwork(before.title, params.network);
    const record = service.titleWork.save(
      before.id,
      next,
      before,
      conditionOf(request),
      writerOf(service, request),
    );
    setVersion(response, record.version);
    return record;
  },
  putPlacement: ({ params, body, request, response }, service) => {
    const { title, placement: name } = params;
    if (!Slug.safeParse(name).success) {
      refuse([
        {
          field: 'placement',
          message: `${JSON.stringify(name)} is not a valid name for a placement.`,
          fix: 'Use small letters, digits and single dashes, such as tide-list-footer.',
        },
      ]);
    }
    const by = { condition: conditionOf(request), writer: writerOf(service, request) };
    const record = service.titleWork.savePlacement(title, name, body, by);
    const version = valueAt(record.placementVersions, name) ?? 1;
    setVersion(response, version);
    if (by.condition === 'absent') created(response, `/titles/${title}/placements/${name}`);
    return { name, version, placement: valueAt(record.title.placements, name) ?? body };
  },
  showPlacement: ({ params, response }, { roster }) => {
    const record = roster.get(params.title);
    const placement = valueAt(record.title.placements, params.placement);
    const version = valueAt(record.placementVersions, params.placement);
    if (!placement || version === undefined) throw noPlacement(record, params.placement);
    setVersion(response, version);
    return { name: params.placement, version, placement };
  },
  removePlacement: ({ params, request }, service) => {
    const by = { condition: conditionOf(request), writer: writerOf(service, request) };
    service.titleWork.savePlacement(params.title, params.placement, null, by);
    return {};
  },
  setId: ({ params, body, request, response }, service) => {
    const writer = writerOf(service, request);
    const record = service.titleWork.setId(params.title, body, conditionOf(request), writer);
    setVersion(response, record.version);
    return record;
  },
  titleHistory: ({ params, query, request, response }, { roster }) => {
    const { entries, next } = roster.historyOf(roster.get(params.title).id, query);
    if (next !== undefined) nextPage(request, response, next);
    return entries;
  },
  revertChange: ({ params, request, response }, service) => {
    const record = service.titleWork.revert(params.title, params.revision, writerOf(service, request));
    setVersion(response, record.version);
    return record;
  },
  board: ({ params, signal }, { overviewing }) => overviewing.board(params.title, signal),
  showPublisher: ({ response }, { roster }) => {
    const version = roster.publisherVersion();
    if (version !== undefined) setVersion(response, version);
    return roster.publisher();
  },
  setPublisher: ({ body, request, response }, service) => {
    refuse(publisherProblems(body, service.profiles.profiles()));
    service.roster.savePublisher(body, conditionOf(request), writerOf(service, request));
    setVersion(response, service.roster.publisherVersion() ?? 1);
    service.events.tell({ kind: 'roster' });
    return body;
  },
} satisfies Partial<Handlers>;
