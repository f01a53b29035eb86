import { writeRoster } from '../../../core/roster/document.js';
import type { Title } from '../../../core/roster/model.js';
import type { TitleRecord } from '../../../api/titles.js';
import { call } from '../../api.js';
import type { Incoming } from '../../components/taking.js';

/** Titles are read a few at a time. */
const atOnce = 20;

/**
 * A document with changed titles. It names the revision of the roster that they were read from, so that changes made in
 * the meantime are not lost.
 * @param change returns the new title; unchanged titles are omitted
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
