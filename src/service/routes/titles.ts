import { publisherProblems } from '../../core/roster/credentials.js';
import { heldIds } from '../../core/roster/validate.js';
import { valueAt } from '../../core/text/own-values.js';
import { platformNames } from '../../core/words/names.js';
import { Slug } from '../../core/words/words.js';
import { writerOf } from '../context.js';
import { refuse } from '../errors.js';
import { expectedVersion, setVersion, type Handlers } from '../route.js';

/** The board of a title with more placements is made in a worker thread. */
const largeBoard = 100;

/** Titles, placements, IDs, the board, and the publisher. */
export const titleHandlers = {
  listTitles: (_call, { roster }) =>
    roster.titleIds().map((id) => {
      const { title, version } = roster.get(id);
      const named = Object.values(title.placements).flatMap(({ units }) => Object.keys(units));
      return {
        id,
        name: title.name,
        version,
        platforms: platformNames.filter((platform) => title.editions[platform]),
        networks: [...new Set([...Object.keys(title.networks), ...named])],
        placements: Object.keys(title.placements).length,
        ids: heldIds(title).length,
      };
    }),
  addTitle: ({ body, request, response }, service) => {
    const writer = writerOf(service, request);
    const record = service.titleWork.save(body.id, body.title, undefined, 'new', writer);
    setVersion(response, record.version);
    response.status(201);
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
    const record = service.titleWork.save(before.id, next, before, expectedVersion(request), writer);
    setVersion(response, record.version);
    return record;
  },
  removeTitle: ({ params, request }, service) => {
    const { id } = service.roster.get(params.title);
    service.roster.save(id, null, expectedVersion(request), writerOf(service, request));
    service.events.tell({ kind: 'title', title: id });
    return {};
  },
  putPlacement: ({ params, body, request, response }, service) => {
    const { title, placement: name } = params;
    if (!Slug.safeParse(name).success) {
      refuse([
        {
          field: 'placement',
          message: `${JSON.stringify(name)} is no name for a placement.`,
          fix: 'Use small letters, digits and single dashes, such as tide-list-footer.',
        },
      ]);
    }
    const by = { expected: expectedVersion(request), writer: writerOf(service, request) };
    const record = service.titleWork.savePlacement(title, name, body, by);
    const version = valueAt(record.placementVersions, name) ?? 1;
    setVersion(response, version);
    return { name, version, placement: valueAt(record.title.placements, name) ?? body };
  },
  removePlacement: ({ params, request }, service) => {
    const by = { expected: expectedVersion(request), writer: writerOf(service, request) };
    service.titleWork.savePlacement(params.title, params.placement, null, by);
    return {};
  },
  setId: ({ params, body, request, response }, service) => {
    const writer = writerOf(service, request);
    const record = service.titleWork.setId(params.title, body, expectedVersion(request), writer);
    setVersion(response, record.version);
    return record;
  },
  titleHistory: ({ params, query }, { roster }) => roster.historyOf(roster.get(params.title).id, query.limit),
  board: ({ params, signal }, { roster, profiles, trees, inventories, runner, ...service }) => {
    const { id, title } = roster.get(params.title);
    const sources = {
      readings: trees.readings(id),
      inventories: inventories.about(heldIds(title).map((held) => held.id)),
      now: service.now().toISOString(),
    };
    const isLarge = Object.keys(title.placements).length > largeBoard;
    return runner.record('board', [id, title, profiles.profiles(), sources], { signal, isLarge });
  },
  showPublisher: (_call, { roster }) => roster.publisher(),
  setPublisher: ({ body, request }, service) => {
    refuse(publisherProblems(body, service.profiles.profiles()));
    service.roster.savePublisher(body, writerOf(service, request));
    service.events.tell({ kind: 'roster' });
    return body;
  },
} satisfies Partial<Handlers>;
