import { draftTitle } from '../../core/adopting/draft.js';
import { readRoster } from '../../core/roster/document.js';
import { writerOf } from '../context.js';
import { faultsOf, ServiceError } from '../errors.js';
import { created, type Handlers } from '../route.js';

/** Titles drafted from trees that exist already, and taken into the roster once somebody has looked at them. */
export const adoptingHandlers = {
  draftTitle: async ({ body, signal }, service) => {
    const surveys = [];
    for (const snapshot of body.snapshots) surveys.push(await service.treeWork.openSurvey(snapshot, signal));
    if (surveys.every(({ editions }) => editions.length === 0))
      throw new ServiceError('invalid', 'These trees build no application that can be read.', {
        fix: 'Name the folders that hold the Gradle build or the Xcode project of the app.',
      });
    const { id, name } = body;
    return draftTitle(surveys, service.profiles.profiles(), { id, name });
  },
  takeDraft: ({ body, request, response }, service) => {
    const { roster: drafted, problems } = readRoster(body.document);
    if (!drafted)
      throw new ServiceError('invalid', 'The document is invalid.', {
        errors: faultsOf(problems),
        fix: 'Correct the fields named here.',
      });
    const known = service.roster.titleIds();
    const there = Object.keys(drafted.titles).find((id) => known.includes(id));
    if (there !== undefined)
      throw new ServiceError('exists', `The title ${there} already exists.`, {
        fix: 'Choose another ID for the draft.',
      });
    const writer = writerOf(service, request);
    const records = service.roster.together(() =>
      Object.entries(drafted.titles).map(([id, title]) =>
        service.titleWork.save(id, title, undefined, 'new', writer),
      ),
    );
    const [only] = records;
    created(response, records.length === 1 && only ? `/titles/${only.id}` : '/titles');
    return records;
  },
} satisfies Partial<Handlers>;
