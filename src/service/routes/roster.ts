import { platformNames } from '../../core/words/names.js';
import { Slug } from '../../core/words/words.js';
import { entryAt, valueAt } from '../../core/text/own-values.js';
import type { Request, Router } from 'express';
import type { TitleRecord } from '../../api/titles.js';
import { publisherProblems } from '../../core/roster/credentials.js';
import { compare, compareThreeWays } from '../../core/roster/compare.js';
import { readRoster, writeRoster } from '../../core/roster/document.js';
import type { Platform, Stage } from '../../core/words/words.js';
import { SecretName, type Placement, type Title } from '../../core/roster/model.js';
import { heldIds } from '../../core/roster/validate.js';
import { makeBoard } from '../../core/board/board.js';
import { writerOf, type ServiceContext } from '../context.js';
import { faultsOf, refuse, ServiceError } from '../errors.js';
import { bind, expectedVersion, setVersion } from '../route.js';
import type { RosterWork } from '../roster-work.js';
import type { Writer } from '../store/roster-store.js';

/** Titles, placements, IDs, the board, and the roster as a document. */
export function rosterRoutes(router: Router, context: ServiceContext, work: RosterWork): void {
  const { roster, trees, events } = context;
  const writer = (request: Request) => writerOf(context, request);

  bind(router, 'listTitles', () =>
    roster.titleIds().map((id) => {
      const { title, version } = roster.get(id);
      return {
        id,
        name: title.name,
        version,
        platforms: platformNames.filter((platform) => title.editions[platform]),
        networks: [
          ...new Set([
            ...Object.keys(title.networks),
            ...Object.values(title.placements).flatMap(({ units }) => Object.keys(units)),
          ]),
        ],
        placements: Object.keys(title.placements).length,
        ids: heldIds(title).length,
      };
    }),
  );

  bind(router, 'addTitle', ({ body, request, response }) => {
    const record = work.save(body.id, body.title, undefined, 'new', writer(request));
    setVersion(response, record.version);
    response.status(201);
    return record;
  });

  bind(router, 'showTitle', ({ params, response }) => {
    const record = roster.get(params.title ?? '');
    setVersion(response, record.version);
    return record;
  });

  bind(router, 'changeTitle', ({ params, body, request, response }) => {
    const before = roster.get(params.title ?? '');
    const record = work.save(
      before.id,
      { ...before.title, ...body },
      before,
      expectedVersion(request),
      writer(request),
    );
    setVersion(response, record.version);
    return record;
  });

  bind(router, 'removeTitle', ({ params, request }) => {
    const { id } = roster.get(params.title ?? '');
    roster.save(id, null, expectedVersion(request), writer(request));
    events.tell({ kind: 'title', title: id });
    return {};
  });

  /** A placement is written through its title; what must match is the placement's own version. */
  const writePlacement = (
    id: string,
    name: string,
    placement: Placement | null,
    expected: number | 'new',
    who: Writer,
  ): TitleRecord =>
    roster.together(() => {
      const before = roster.get(id);
      const version = valueAt(before.placementVersions, name);
      if (expected === 'new' && version !== undefined) {
        throw new ServiceError('exists', `${id} has a placement ${name} already.`, {
          fix: 'Choose another name, or change that placement.',
        });
      }
      if (expected !== 'new' && version === undefined) {
        throw new ServiceError('not-found', `${id} has no placement ${name}.`, {
          fix: `Its placements are ${Object.keys(before.title.placements).join(', ') || 'none'}.`,
        });
      }
      if (expected !== 'new' && version !== expected) {
        throw new ServiceError(
          'changed',
          `The placement ${name} is at version ${version}, not ${expected}: somebody changed it since.`,
          {
            fix: 'Read it again, look at what changed, and repeat your change.',
          },
        );
      }
      const { [name]: _, ...others } = before.title.placements;
      const placements = placement === null ? others : { ...before.title.placements, [name]: placement };
      return work.save(id, { ...before.title, placements }, before, before.version, who);
    });

  bind(router, 'putPlacement', ({ params, body, request, response }) => {
    const { title = '', placement: name = '' } = params;
    if (!Slug.safeParse(name).success) {
      refuse([
        {
          field: 'placement',
          message: `${JSON.stringify(name)} is no name for a placement.`,
          fix: 'Use small letters, digits and single dashes, such as tide-list-footer.',
        },
      ]);
    }
    const record = writePlacement(title, name, body, expectedVersion(request), writer(request));
    const version = valueAt(record.placementVersions, name) ?? 1;
    setVersion(response, version);
    return { name, version, placement: valueAt(record.title.placements, name) ?? body };
  });

  bind(router, 'removePlacement', ({ params, request }) => {
    writePlacement(
      params.title ?? '',
      params.placement ?? '',
      null,
      expectedVersion(request),
      writer(request),
    );
    return {};
  });

  bind(router, 'setId', ({ params, body, request, response }) => {
    const before = roster.get(params.title ?? '');
    const { network, platform, stage, placement, credential, value } = body;
    const next = structuredClone(before.title);
    if (credential !== undefined) {
      setCredential(next, { network, platform, stage }, credential, value);
    } else if (placement === null) {
      const stages = (entryAt(next.networks, network, () => ({}))[platform] ??= {});
      if (value === null) delete stages[stage];
      else stages[stage] = { ...stages[stage], app: value };
    } else {
      const target = valueAt(next.placements, placement);
      if (!target) {
        const known = Object.keys(next.placements).join(', ') || 'none';
        refuse([
          {
            field: 'placement',
            message: `${before.id} has no placement ${placement}.`,
            fix: `Its placements are ${known}.`,
          },
        ]);
      } else {
        const stages = (entryAt(target.units, network, () => ({}))[platform] ??= {});
        if (value === null) delete stages[stage];
        else stages[stage] = value;
      }
    }
    if (!next.editions[platform]) {
      refuse([
        {
          field: 'platform',
          message: `${before.id} has no ${platform} edition.`,
          fix: `Name its identifier first: syndexa title set ${before.id} --${platform} IDENTIFIER.`,
        },
      ]);
    }
    const record = work.save(before.id, next, before, expectedVersion(request), writer(request));
    setVersion(response, record.version);
    return record;
  });

  bind(router, 'titleHistory', ({ params, query }) =>
    roster.historyOf(roster.get(params.title ?? '').id, query.limit),
  );
  bind(router, 'board', ({ params }) => {
    const { id, title } = roster.get(params.title ?? '');
    return makeBoard(id, title, context.profiles.profiles(), {
      readings: trees.readings(id),
      inventories: context.inventories.about(heldIds(title).map((held) => held.id)),
      now: context.now().toISOString(),
    });
  });
  bind(router, 'showPublisher', () => roster.publisher());
  bind(router, 'setPublisher', ({ body, request }) => {
    refuse(publisherProblems(body, context.profiles.profiles()));
    roster.savePublisher(body, writer(request));
    events.tell({ kind: 'roster' });
    return body;
  });

  bind(router, 'exportRoster', () => ({
    revision: roster.revision(),
    document: writeRoster(roster.roster()),
  }));
  bind(router, 'updateRosterDocument', ({ body }) => ({
    revision: roster.revision(),
    document: writeRoster(roster.roster(), body.document),
  }));

  bind(router, 'importRoster', ({ body, request }) => {
    const read = readRoster(body.document);
    if (!read.roster)
      throw new ServiceError('invalid', 'The roster document is not right.', {
        errors: faultsOf(read.problems),
        fix: 'Correct the fields named here.',
      });
    const incoming = read.roster;
    const { syndexa: _, revision: base, ...document } = incoming;
    return roster.together(() => {
      const now = roster.roster();
      const kept = body.prune ? {} : now.titles;
      const target = {
        ...(now.publisher ? { publisher: now.publisher } : {}),
        ...document,
        titles: { ...kept, ...document.titles },
      };
      const current = { ...(now.publisher ? { publisher: now.publisher } : {}), titles: now.titles };
      const changes = compare(current, target);
      if (base !== undefined && base !== roster.revision() && changes.length > 0) {
        const three =
          base < roster.revision() ? compareThreeWays(roster.rosterAt(base), current, target) : [];
        const detail =
          base > roster.revision()
            ? `The document was written from revision ${base}, which this record never had (it is at ${roster.revision()}).`
            : `The document was written from revision ${base}; the record is at ${roster.revision()} since.`;
        throw new ServiceError('stale', detail, {
          changes: three,
          fix: 'Export again (syndexa roster export FILE keeps your comments), put your changes in, and import that.',
        });
      }
      const problems = Object.entries(document.titles).flatMap(([id, title]) =>
        work.newProblems(id, title, valueAt(now.titles, id)).map((problem) => ({
          ...problem,
          field: `titles.${id}.${problem.field}`,
          place: read.placeOf(['titles', id, ...problem.field.split('.')]),
        })),
      );
      if (document.publisher)
        problems.push(
          ...publisherProblems(document.publisher, context.profiles.profiles()).map((problem) => ({
            ...problem,
            field: `publisher.${problem.field}`,
            place: read.placeOf(['publisher', ...problem.field.split('.')]),
          })),
        );
      refuse(problems);
      if (!body.dryRun) {
        const by = writer(request);
        if (target.publisher) roster.savePublisher(target.publisher, by);
        for (const [id, title] of Object.entries(target.titles)) roster.save(id, title, 'any', by);
        for (const id of Object.keys(now.titles))
          if (!(id in target.titles)) roster.save(id, null, 'any', by);
        events.tell({ kind: 'roster' });
      }
      return { revision: roster.revision(), changes, applied: !body.dryRun };
    });
  });
}

/** Names the secret of an edition's credential, or takes the name out. The secret itself is refused. */
function setCredential(
  title: Title,
  { network, platform, stage }: { network: string; platform: Platform; stage: Stage },
  name: string,
  value: string | null,
): void {
  const parsed = SecretName.safeParse(value ?? 'secret:NONE');
  if (!parsed.success)
    refuse([
      {
        field: 'value',
        message: 'A credential is named, never given: it would be stored and shown here.',
        fix: 'Keep it with syndexa secret set NAME, and give secret:NAME.',
      },
    ]);
  const stages = (entryAt(title.networks, network, () => ({}))[platform] ??= {});
  const { [name]: _, ...others } = stages[stage]?.credentials ?? {};
  stages[stage] = {
    ...stages[stage],
    credentials: value === null ? others : { ...others, [name]: value },
  };
}
