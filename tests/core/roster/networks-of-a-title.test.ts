import { describe, expect, it } from 'vitest';
import type { SurveyEdition } from '../../../src/core/facts/model.js';
import type { Profile } from '../../../src/core/network/model.js';
import { comparedWith } from '../../../src/core/roster/compared.js';
import { expectedIds, isEnrolled, recordedIds, usesNetwork } from '../../../src/core/roster/expected.js';
import { misfitsOf } from '../../../src/core/roster/misfits.js';
import type { Title } from '../../../src/core/roster/model.js';
import { editionOf } from '../../../src/core/roster/modules.js';
import { formatsOn, neededBy } from '../../../src/core/roster/needed.js';
import { isUsedBy } from '../../../src/core/roster/used.js';
import { withoutNetwork } from '../../../src/core/roster/without.js';
import { kelp, placement, profileOf, profiles } from '../../support/titles.js';

const heron = profileOf('cobalt-heron');
const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');
const android = { android: { identifier: 'example.brine.kelp' } };
/** A title that names Cobalt Heron in one way alone. */
const naming = (networks: Title['networks'], units?: Title['placements'][string]['units']) =>
  kelp({ networks, placements: units ? { footer: { format: 'banner', settings: {}, units } } : {} });

describe('a title uses a network', () => {
  it.each<[string, Title, boolean, boolean, boolean]>([
    ['not at all', naming({}), false, false, false],
    ['by its name', naming({ 'cobalt-heron': {} }), true, true, true],
    ['by an enrolment on one platform', naming({ 'cobalt-heron': { ios: {} } }), true, false, true],
    ['by a placement', naming({}, { 'cobalt-heron': {} }), true, true, true],
    ['by units on one platform', naming({}, { 'cobalt-heron': { android: {} } }), true, true, false],
    [
      'here and there',
      naming({ 'cobalt-heron': { ios: {} } }, { 'cobalt-heron': { android: {} } }),
      true,
      true,
      true,
    ],
    ['by a placement of another network', naming({}, { marlstone: {} }), false, false, false],
  ])('%s', (_, title, uses, onAndroid, onIos) => {
    expect(usesNetwork(title, 'cobalt-heron')).toBe(uses);
    expect(isUsedBy(title, 'cobalt-heron')).toBe(uses);
    expect(isEnrolled(title, 'cobalt-heron', 'android')).toBe(onAndroid);
    expect(isEnrolled(title, 'cobalt-heron', 'ios')).toBe(onIos);
  });

  it('on no platform that it has no edition for', () => {
    const title = kelp({ editions: android, networks: { 'cobalt-heron': {} } });
    expect(isEnrolled(title, 'cobalt-heron', 'ios')).toBe(false);
  });

  it('in an order of fallbacks, which enrols nothing', () => {
    const title = kelp({
      networks: {},
      placements: { footer: { ...footer, settings: { fallback: ['marlstone'] } } },
    });
    expect(isUsedBy(title, 'marlstone')).toBe(true);
    expect(isUsedBy(title, 'quincebury')).toBe(false);
    expect(isEnrolled(title, 'marlstone', 'android')).toBe(false);
  });
});

describe('the IDs that a title should have', () => {
  it('are its own, the samples for testing, and holes', () => {
    const title = kelp({
      networks: { 'cobalt-heron': { android: { test: { app: 'CH-A-310772-TEST0000' } } } },
      placements: {
        footer: { ...footer, units: { 'cobalt-heron': { android: { test: 'CH-U-100001-BANNER0A' } } } },
      },
    });
    const base = { network: 'cobalt-heron', platform: 'android' };
    const spot = { ...base, kind: 'unit', placement: 'footer', format: 'banner' };
    expect(expectedIds(title, profiles, 'android')).toEqual([
      { ...base, kind: 'app', stage: 'test', id: 'CH-A-310772-TEST0000', from: 'roster' },
      { ...base, kind: 'app', stage: 'production', id: undefined, from: 'nowhere' },
      { ...spot, stage: 'test', id: 'CH-U-100001-BANNER0A', from: 'sample' },
      { ...spot, stage: 'production', id: undefined, from: 'nowhere' },
    ]);
    expect(expectedIds(kelp(), profiles, 'ios')).toMatchObject([
      { stage: 'test', id: 'CH-I-100001-SAMPLE0I', from: 'sample' },
      { stage: 'production', id: 'CH-I-310772-M6R9V3XC', from: 'roster' },
    ]);
  });

  it('are none of a kind, a place or a format that the network does not have', () => {
    const title = kelp({ placements: { footer } });
    const of = (changes: Partial<Profile>) =>
      expectedIds(title, [{ ...heron, ...changes } as Profile], 'android').map(({ kind }) => kind);
    expect(of({})).toEqual(['app', 'app', 'unit', 'unit']);
    expect(of({ ids: { ...heron.ids, app: undefined } })).toEqual(['unit', 'unit']);
    expect(of({ android: { ...heron.android!, 'app-id': undefined } })).toEqual(['unit', 'unit']);
    expect(of({ android: undefined })).toEqual([]);
    expect(of({ ids: { ...heron.ids, unit: undefined } })).toEqual(['app', 'app']);
    expect(of({ formats: {} })).toEqual(['app', 'app']);
  });

  it('are none at a placement that does not name the network', () => {
    const title = kelp({ placements: { gift: placement('rewarded', 'x', 'y', 'marlstone') } });
    expect(expectedIds(title, [heron], 'android').map(({ kind }) => kind)).toEqual(['app', 'app']);
  });

  it('are on record where they are known, for all platforms', () => {
    const title = kelp({
      networks: { 'cobalt-heron': { android: {}, ios: { production: { app: 'CH-I-310772-M6R9V3XC' } } } },
    });
    expect(recordedIds(title, profiles)).toEqual([
      { id: 'CH-A-100001-SAMPLE0A', network: 'cobalt-heron' },
      { id: 'CH-I-100001-SAMPLE0I', network: 'cobalt-heron' },
      { id: 'CH-I-310772-M6R9V3XC', network: 'cobalt-heron' },
    ]);
  });
});

describe('what a title needs of a profile', () => {
  const made = {
    ...heron,
    android: {
      ...heron.android!,
      dependencies: [
        { coordinate: 'a:all', version: '1' },
        { coordinate: 'a:banner', version: '1', formats: ['banner'] },
        { coordinate: 'a:video', version: '1', formats: ['rewarded', 'interstitial'] },
      ],
    },
    ios: {
      ...heron.ios!,
      pods: [
        { name: 'All', version: '1' },
        { name: 'Video', version: '1', formats: ['rewarded'] },
      ],
      packages: [{ product: 'Banner', version: '1', formats: ['banner'] }],
    },
  } as unknown as Profile;
  const names = ({ android: a, ios }: Profile) => [
    ...(a?.dependencies ?? []).map(({ coordinate }) => coordinate),
    ...(ios?.pods ?? []).map(({ name }) => name),
    ...(ios?.packages ?? []).map(({ product }) => product),
  ];
  const gift = placement('rewarded', 'x', 'y');

  it('are the formats of its placements there', () => {
    const title = kelp({ placements: { footer, gift, other: placement('splash', 'x', 'y', 'marlstone') } });
    expect(formatsOn(title, 'cobalt-heron')).toEqual(new Set(['banner', 'rewarded']));
    expect(formatsOn(title, 'quincebury')).toEqual(new Set());
  });

  it('leaves out dependencies for formats that it does not use', () => {
    expect(names(neededBy(kelp({ placements: { footer } }), made))).toEqual([
      'a:all',
      'a:banner',
      'All',
      'Banner',
    ]);
    expect(names(neededBy(kelp({ placements: { gift } }), made))).toEqual([
      'a:all',
      'a:video',
      'All',
      'Video',
    ]);
    expect(names(neededBy(kelp(), made))).toEqual(['a:all', 'All']);
  });

  it('is the profile itself where all is needed, and one narrowed profile for the same formats', () => {
    const [both, one] = [kelp({ placements: { footer, gift } }), kelp({ placements: { footer } })];
    expect(neededBy(both, made)).toBe(made);
    expect(neededBy(kelp(), heron)).toBe(heron);
    expect(neededBy(one, made)).toBe(neededBy(kelp({ placements: { again: footer } }), made));
    expect(neededBy(one, made)).not.toBe(neededBy(kelp({ placements: { gift } }), made));
  });

  it('may be of one platform alone', () => {
    const { android: _, ...iosOnly } = made;
    const { ios: __, ...androidOnly } = made;
    expect(names(neededBy(kelp(), iosOnly as Profile))).toEqual(['All']);
    expect(names(neededBy(kelp(), androidOnly as Profile))).toEqual(['a:all']);
    expect(neededBy(kelp(), iosOnly as Profile)).not.toHaveProperty('android');
    expect(neededBy(kelp(), androidOnly as Profile)).not.toHaveProperty('ios');
  });
});

const edition = (platform: 'android' | 'ios', module: string, ...identifiers: string[]) =>
  ({
    platform,
    module,
    identifiers: Object.fromEntries(identifiers.map((id, at) => [`v${at}`, id])),
  }) as SurveyEdition;

describe('the application in a tree that is an edition', () => {
  const [mine, other, ios] = [
    edition('android', 'app', 'example.brine.kelp.debug', 'example.brine.kelp'),
    edition('android', 'wear', 'example.brine.wear'),
    edition('ios', 'Kelp', 'example.brine.kelp'),
  ];
  const named = (module: string) =>
    kelp({ editions: { android: { identifier: 'example.brine.kelp', module } } });

  it('is the one that has its identifier in any variant', () => {
    expect(editionOf([other, mine, ios], kelp(), 'android')).toBe(mine);
    expect(editionOf([other, mine, ios], kelp(), 'ios')).toBe(ios);
  });

  it('is the only one of its platform, whatever its identifier', () => {
    expect(editionOf([other, ios], kelp(), 'android')).toBe(other);
    expect(editionOf([ios], kelp(), 'android')).toBe(undefined);
  });

  it('is the module that the title names, and no other', () => {
    expect(editionOf([mine, other], named('wear'), 'android')).toBe(other);
    expect(editionOf([mine], named('tv'), 'android')).toBe(undefined);
  });

  it('is none where several could be meant, or the title has no such edition', () => {
    expect(editionOf([mine, edition('android', 'copy', 'example.brine.kelp')], kelp(), 'android')).toBe(
      undefined,
    );
    expect(editionOf([other, edition('android', 'tv', 'example.brine.tv')], kelp(), 'android')).toBe(
      undefined,
    );
    expect(editionOf([ios], kelp({ editions: android }), 'ios')).toBe(undefined);
  });

  it('says whether a tree can be compared with a title', () => {
    expect(comparedWith([mine], null, profiles)).toBe('no-title');
    expect(comparedWith([mine], kelp({ networks: {} }), profiles)).toBe('no-networks');
    expect(comparedWith([mine], kelp(), [profileOf('marlstone')])).toBe('no-networks');
    expect(comparedWith([mine], kelp(), profiles)).toBe('title');
    expect(comparedWith([ios], kelp(), profiles)).toBe('title');
    expect(comparedWith([], kelp(), profiles)).toBe('no-edition');
    const iosOnly = kelp({ networks: { 'cobalt-heron': { ios: {} } } });
    expect(comparedWith([ios], iosOnly, profiles)).toBe('title');
  });
});

describe('a title without a network', () => {
  it('has it nowhere, and all else as it was', () => {
    const title = kelp({
      networks: { 'cobalt-heron': {}, marlstone: {} },
      placements: {
        gift: {
          ...placement('rewarded', 'x', 'y'),
          settings: { fallback: ['marlstone', 'cobalt-heron'], timeout: '5s' },
          units: { marlstone: {}, 'cobalt-heron': {} },
        },
        alone: { ...footer, settings: { fallback: ['cobalt-heron'] } },
      },
    });
    const left = withoutNetwork(title, 'cobalt-heron');
    expect(isUsedBy(left, 'cobalt-heron')).toBe(false);
    expect(left).toEqual(
      kelp({
        networks: { marlstone: {} },
        placements: {
          gift: {
            format: 'rewarded',
            settings: { fallback: ['marlstone'], timeout: '5s' },
            units: { marlstone: {} },
          },
          alone: { format: 'banner', settings: {}, units: {} },
        },
      }),
    );
    expect(withoutNetwork(title, 'nowhere')).toEqual(title);
  });
});

describe('what no longer fits when a profile changes', () => {
  it('is what fitted before, by title', () => {
    const stricter = { ...heron, formats: { ...heron.formats, banner: undefined } } as unknown as Profile;
    const titles = { kelp: kelp({ placements: { footer } }), dulse: kelp() };
    expect(misfitsOf({ titles }, [heron], [heron])).toEqual([]);
    expect(misfitsOf({ titles }, [heron], [stricter])).toEqual([
      expect.objectContaining({
        title: 'kelp',
        field: 'placements.footer.units.cobalt-heron',
        message: 'Cobalt Heron does not offer the format banner.',
      }),
    ]);
    expect(misfitsOf({ titles }, [stricter], [stricter])).toEqual([]);
    expect(misfitsOf({ titles }, [stricter], [heron])).toEqual([]);
    const wrong = {
      ...titles,
      kelp: kelp({ placements: { footer: { ...footer, settings: { refresh: '10s' } } } }),
    };
    expect(misfitsOf({ titles: wrong }, [heron], [stricter]).map(({ message }) => message)).toEqual([
      'Cobalt Heron does not offer the format banner.',
    ]);
  });
});
