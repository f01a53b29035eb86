import { readPattern } from '../../core/text/patterns.js';
import { putAt, valueAt } from '../../core/text/own-values.js';
import { unitName, usualPattern } from '../../core/inventory/names.js';
import { platformNames } from '../../core/words/names.js';
import type { Profile } from '../../core/network/model.js';
import { settingsFor } from '../../core/provision/settings.js';
import type { Title } from '../../core/roster/model.js';
import { Client } from '../client.js';
import { controlPartner, type PartnerCard } from '../partner-process.js';
import { keepKey, openAccount, secretNameFor } from './partner.js';

/** The banner whose refresh time on iOS differs at the network. */
const drifted = 'tide-list-footer';
/** Units have served for this long (ms), so that there are numbers of a year and more. */
const age = 420 * 86_400_000;
/** The title that units are left over of. */
const oldest = 'tidewick';

/** Puts the demo's titles into the partner's books, as if they had been made there by hand years ago. */
export async function fillPartner(url: string, home: string, card: PartnerCard, site: string): Promise<void> {
  const client = new Client(url, 'demo');
  try {
    const { answer: publisher, etag } = await client.callWithVersion('showPublisher');
    if (!publisher) return;
    const credentials: Record<string, Record<string, string>> = {};
    const titles = await client.all('listTitles');
    for (const { id: network } of await client.call('listNetworks')) {
      const { profile } = await client.call('showNetwork', { params: { network } });
      const credential = profile.inventory?.http?.key;
      if (credential === undefined) continue;
      const records = await Promise.all(
        titles.map(({ id }) => client.call('showTitle', { params: { title: id } })),
      );
      const number = records.flatMap(({ title }) => accountsIn(profile, title))[0];
      const { key } = await openAccount(card, network, publisher.name, number);
      const name = secretNameFor(network, credential);
      keepKey(home, card, name, key);
      putAt(credentials, network, { [credential]: `secret:${name}` });
      for (const { id, title } of records) await fillTitle(card, profile, key, id, title);
    }
    await client.call('setPublisher', {
      body: { ...publisher, credentials },
      headers: { 'If-Match': etag },
    });
    for (const { id } of titles) {
      const { title } = await client.call('showTitle', { params: { title: id } });
      for (const platform of platformNames) {
        const identifier = title.editions[platform]?.identifier;
        if (identifier !== undefined)
          await controlPartner(card, 'listings', {
            platform,
            identifier,
            name: title.name,
            site: publisher.domain,
          });
      }
    }
    await controlPartner(card, 'sites', { domain: publisher.domain, address: site });
  } finally {
    client.close();
  }
}

/** The account that a title's IDs at a network carry. */
function accountsIn(profile: Profile, title: Title): string[] {
  const pattern = profile.ids.unit && readPattern(profile.ids.unit.pattern);
  return Object.values(title.placements).flatMap(({ units }) =>
    platformNames.flatMap((platform) => {
      const id = valueAt(units, profile.id)?.[platform]?.production;
      return (id !== undefined && pattern?.groupsOf(id)?.get('account')) || [];
    }),
  );
}

async function fillTitle(
  card: PartnerCard,
  profile: Profile,
  key: string,
  id: string,
  title: Title,
): Promise<void> {
  const network = profile.id;
  const since = new Date(Date.now() - age).toISOString();
  for (const platform of platformNames) {
    const identifier = title.editions[platform]?.identifier;
    const app = valueAt(title.networks, network)?.[platform]?.production?.app;
    if (identifier === undefined || (app === undefined && profile.ids.app)) continue;
    if (profile.inventory?.http?.apps)
      await controlPartner(card, 'apps', {
        network,
        key,
        platform,
        identifier,
        name: title.name,
        audience: title.audience,
        terms: true,
        ...(app === undefined ? {} : { id: app }),
      });
    for (const [placement, { format, settings, units }] of Object.entries(title.placements)) {
      const unit = valueAt(units, network)?.[platform]?.production;
      if (unit === undefined) continue;
      const kept = settingsFor(profile, settings, format);
      await controlPartner(card, 'units', {
        network,
        key,
        app: app ?? null,
        platform,
        format,
        name: unitName(usualPattern, { title: id, placement, format, platform }),
        // One setting was changed at the network, and nobody told the record.
        settings: placement === drifted && platform === 'ios' ? { ...kept, refresh: '90s' } : kept,
        id: unit,
        'serves-from': since,
      });
    }
    if (profile.formats.splash && id === oldest)
      await controlPartner(card, 'units', {
        network,
        key,
        app: app ?? null,
        platform,
        format: 'splash',
        // Nobody remembers what it was for.
        name: 'opening picture, 2023',
        settings: { content: ['image'] },
        'serves-from': since,
      });
  }
}
