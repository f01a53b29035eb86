import { describe, expect, it } from 'vitest';
import type { Profile } from '../../../src/core/network/model.js';
import {
  credentialUses,
  publisherProblems,
  titleCredentialProblems,
} from '../../../src/core/roster/credentials.js';
import type { Publisher } from '../../../src/core/roster/model.js';
import { kelp, profileOf } from '../../support/titles.js';

const credential = (scope: 'account' | 'edition', label: string) => ({ scope, label, why: 'x' });
const shoal = {
  ...profileOf('cobalt-heron'),
  id: 'shoal',
  name: 'Shoal',
  credentials: {
    inventory: credential('account', 'inventory key'),
    reports: credential('account', 'report key'),
    signing: credential('edition', 'signing key'),
  },
} as Profile;
const bare = { ...shoal, id: 'bare', name: 'Bare', credentials: {} } as Profile;
const profiles = [shoal, bare];
const publisher = (credentials?: Publisher['credentials']): Publisher => ({
  name: 'Brine',
  domain: 'brine.example',
  credentials,
});
const using = (credentials: Record<string, string>, network = 'shoal') =>
  kelp({ networks: { [network]: { android: { production: { credentials } } } } });

describe('the secrets that a roster names', () => {
  it('are listed with all their uses, those of the publisher first', () => {
    const kelpTitle = kelp({
      networks: {
        shoal: {
          android: {
            test: { credentials: { signing: 'secret:ONE' } },
            production: { credentials: { signing: 'secret:TWO' } },
          },
          ios: { production: { credentials: { signing: 'secret:ONE' } } },
        },
      },
    });
    const uses = credentialUses({
      syndexa: 1,
      publisher: publisher({ shoal: { inventory: 'secret:TWO', reports: 'secret:SIX' } }),
      titles: { kelp: kelpTitle, dulse: kelp({ networks: { shoal: {} } }) },
    });
    expect([...uses]).toEqual([
      ['secret:TWO', ['shoal.inventory', 'kelp: shoal.signing (Android, production)']],
      ['secret:SIX', ['shoal.reports']],
      ['secret:ONE', ['kelp: shoal.signing (Android, test)', 'kelp: shoal.signing (iOS, production)']],
    ]);
    expect(credentialUses({ syndexa: 1, titles: {} }).size).toBe(0);
    expect(credentialUses({ syndexa: 1, titles: {}, publisher: publisher() }).size).toBe(0);
  });
});

describe('what is wrong with the credentials of a title', () => {
  const known = new Map(profiles.map((profile) => [profile.id, profile]));
  const problems = (...given: Parameters<typeof using>) => titleCredentialProblems(using(...given), known);
  const field = 'networks.shoal.android.production.credentials';

  it('is nothing where the network has one for each edition, or where it has no profile', () => {
    expect(problems({ signing: 'secret:ONE' })).toEqual([]);
    expect(problems({ anything: 'secret:ONE' }, 'nowhere')).toEqual([]);
  });

  it('is that one belongs to the account', () => {
    expect(problems({ inventory: 'secret:ONE' })).toEqual([
      {
        field: `${field}.inventory`,
        message: 'The inventory key of Shoal is one per account.',
        fix: 'Set it under publisher.credentials.',
      },
    ]);
  });

  it('is that the network has none of the name', () => {
    expect(problems({ other: 'secret:ONE' })).toEqual([
      { field: `${field}.other`, message: 'Shoal has no credential other.', fix: 'It has signing.' },
    ]);
    expect(problems({ other: 'secret:ONE' }, 'bare')).toEqual([
      expect.objectContaining({ message: 'Bare has no credential other.', fix: 'Remove it.' }),
    ]);
  });
});

describe('what is wrong with the credentials of the publisher', () => {
  const problems = (credentials?: Publisher['credentials']) =>
    publisherProblems(publisher(credentials), profiles);

  it('is nothing where each belongs to an account', () => {
    expect(problems({ shoal: { inventory: 'secret:ONE', reports: 'secret:TWO' } })).toEqual([]);
    expect(problems()).toEqual([]);
  });

  it('is that one belongs to an edition, that there is none of the name, or no such network', () => {
    expect(problems({ shoal: { signing: 'secret:ONE', other: 'secret:ONE' }, nowhere: {} })).toEqual([
      {
        field: 'credentials.shoal.signing',
        message: 'The signing key of Shoal is one per edition.',
        fix: 'Set it for the network of the title.',
      },
      {
        field: 'credentials.shoal.other',
        message: 'Shoal has no credential other.',
        fix: 'It has inventory, reports.',
      },
      {
        field: 'credentials.nowhere',
        message: 'There is no profile of the network nowhere.',
        fix: 'Use one of shoal, bare.',
      },
    ]);
  });
});
