import { dayText, weekday } from '../../core/tally/days.js';
import { Client } from '../client.js';
import { controlPartner, type PartnerCard } from '../partner-process.js';

/** Days of numbers that the demo brings in. */
const shownDays = 120;

/** What befalls the demo's titles, counted in days before today. `demo/FAULTS.md` lists it. */
const incidents = [
  {
    network: 'marlstone',
    title: 'tidewick',
    placement: 'station-open',
    platform: 'android',
    what: 'silent',
    ago: 17,
  },
  {
    network: 'cobalt-heron',
    title: 'kilnlog',
    placement: 'one-more-recipe',
    platform: 'ios',
    what: 'unshown',
    ago: 9,
  },
  {
    network: 'cobalt-heron',
    title: 'plumebook',
    placement: 'bird-list-footer',
    platform: 'ios',
    what: 'fewer',
    ago: 20,
  },
] as const;

const releases = [
  { title: 'tidewick', platform: 'android', version: '3.1.0', ago: 74 },
  { title: 'tidewick', platform: 'ios', version: '3.1.0', ago: 72 },
  { title: 'tidewick', platform: 'android', version: '3.2.0', ago: 18 },
  { title: 'tidewick', platform: 'ios', version: '3.2.0', ago: 16 },
  { title: 'plumebook', platform: 'android', version: '5.0.0', ago: 23 },
  { title: 'plumebook', platform: 'ios', version: '5.0.0', ago: 21 },
  { title: 'kilnlog', platform: 'android', version: '2.4.1', ago: 12 },
  { title: 'kilnlog', platform: 'ios', version: '2.4.1', ago: 10 },
] as const;

/** Gives the demo's titles a past: numbers of some months, releases, rates, and things that went wrong. */
export async function fillNumbers(url: string, card: PartnerCard): Promise<void> {
  const client = new Client(url, 'demo');
  try {
    const today = Math.floor(Date.now() / 86_400_000);
    for (const { network, title, placement, platform, what, ago } of incidents) {
      const { title: record } = await client.call('showTitle', { params: { title } });
      const unit = record.placements[placement]?.units[network]?.[platform]?.production;
      if (unit !== undefined)
        await controlPartner(card, 'incident', { network, unit, what, from: dayText(today - ago) });
    }
    for (const { ago, ...release } of releases)
      await client.call('setRelease', {
        params: { title: release.title },
        body: { ...release, day: dayText(today - ago) },
      });
    await client.call('setRates', { body: { table: ratesUntil(today) } });
    await client.call('fetchTally', { body: { from: dayText(today - shownDays) } });
  } finally {
    client.close();
  }
}

/** Rates of the demo's days, on working days only, as a table. */
function ratesUntil(today: number): string {
  const rows = Array.from({ length: shownDays + 10 }, (_, at) => today - at)
    .filter((day) => weekday(day) < 5)
    .map((day) => `${dayText(day)},USD,EUR,${(0.92 + 0.015 * Math.sin(day / 23)).toFixed(4)}`);
  return ['day,currency,base,rate', ...rows].join('\n');
}
