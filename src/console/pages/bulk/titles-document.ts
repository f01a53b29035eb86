import { writeRoster } from '../../../core/roster/document.js';
import type { Title } from '../../../core/roster/model.js';
import type { TitleRecord } from '../../../api/titles.js';
import { call } from '../../api.js';
import type { Incoming } from '../../components/taking.js';

/** Titles are read a few at a time. */
const atOnce = 20;

/**
 * A document that holds some titles, changed. It names the revision of the record that they were read from, so nothing that
 * somebody else writes meanwhile is lost.
 * @param change gives the title as it is to be; what it gives back unchanged is left out
 */
export async function documentOf(
  ids: readonly string[],
  change: (title: Title, id: string) => readonly (readonly [id: string, title: Title])[],
): Promise<Incoming> {
  const { revision } = await call('importRoster', {
    body: { document: 'syndexa: 1\ntitles: {}\n', dryRun: true },
  });
  const records: TitleRecord[] = [];
  for (let at = 0; at < ids.length; at += atOnce)
    records.push(
      ...(await Promise.all(
        ids.slice(at, at + atOnce).map((title) => call('showTitle', { params: { title } })),
      )),
    );
  const titles = Object.fromEntries(records.flatMap(({ id, title }) => change(title, id)));
  return { document: writeRoster({ syndexa: 1, revision, titles }) };
}
