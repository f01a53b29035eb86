import { valueAt } from '../text/own-values.js';
import type { Profile } from '../network/model.js';
import { recogniser } from '../network/recognise.js';
import type { Roster } from './model.js';
import { heldIds } from './validate.js';
import type { Edit } from '../text/edit.js';
import { readAppAds, recordText, type SellerRecord } from '../standards/app-ads.js';

/** A record that a network requires, or why it cannot be written. */
export interface NeededRecord {
  network: string;
  networkName: string;
  /** Null if the account is not known. */
  record: SellerRecord | null;
  /** Why the network requires it; what happens without it. */
  why: string;
  /** What is missing for the record to be written. */
  missing?: string;
}

/** What a file has of what is needed. */
export interface AppAdsComparison extends NeededRecord {
  state: 'there' | 'missing' | 'differs' | 'unknown-account';
  /** The line that says something else about the same account or network. */
  line?: number;
}

/** Stands for the publisher’s own number in the account of a record. */
const ownNumber = '{account}';

/** The records that the networks of all titles ask for, in the order of the profiles. */
export function neededRecords(roster: Roster, profiles: readonly Profile[]): NeededRecord[] {
  const { recognise } = recogniser(profiles);
  const held = Object.values(roster.titles).flatMap(heldIds);
  return profiles.flatMap((profile) => {
    const used = Object.values(roster.titles).some(
      ({ networks, placements }) =>
        profile.id in networks || Object.values(placements).some(({ units }) => profile.id in units),
    );
    if (!used) return [];
    const named = valueAt(roster.publisher?.accounts, profile.id);
    const inIds = held
      .filter(({ network, stage }) => network === profile.id && stage === 'production')
      .flatMap(({ id }) =>
        recognise(id, profile.id).flatMap((reading) =>
          reading.network === profile.id ? (reading.account ?? []) : [],
        ),
      );
    const accounts = named === undefined ? [...new Set(inIds)] : [named];
    return profile['app-ads'].flatMap(
      ({ domain, relationship, certification, account, why }): NeededRecord[] => {
        const base = { network: profile.id, networkName: profile.name, why };
        const own = account?.includes(ownNumber) ?? true;
        const known = own
          ? accounts.map((number) => account?.replaceAll(ownNumber, number) ?? number)
          : [account ?? ''];
        if (known.length === 0) {
          const missing = `The publisher’s account at ${profile.name} is not known: set it under publisher.accounts.${profile.id}.`;
          return [{ ...base, record: null, missing }];
        }
        return known.map((name) => ({
          ...base,
          record: { domain, account: name, relationship, ...(certification ? { certification } : {}) },
        }));
      },
    );
  });
}

/** Holds a file against what is needed. */
export function compareAppAds(text: string, needed: readonly NeededRecord[]): AppAdsComparison[] {
  const records = readAppAds(text).lines.flatMap((line) => (line.kind === 'record' ? [line] : []));
  return needed.map((need): AppAdsComparison => {
    const { record } = need;
    if (!record) return { ...need, state: 'unknown-account' };
    const same = records.find(
      (line) => line.record.domain === record.domain && line.record.account === record.account,
    );
    if (!same) return { ...need, state: 'missing' };
    const { relationship, certification } = same.record;
    const agrees =
      relationship === record.relationship &&
      (record.certification === undefined || certification === record.certification);
    return { ...need, state: agrees ? 'there' : 'differs', line: same.line };
  });
}

/**
 * The edits that add what is missing to a file: lines that differ are corrected in place, new ones are appended.
 * Comments, order and line ends stay.
 */
export function mergeAppAds(text: string, needed: readonly NeededRecord[]): Edit[] {
  const { lines } = readAppAds(text);
  const eol = text.includes('\r\n') ? '\r\n' : '\n';
  const compared = compareAppAds(text, needed);
  const corrections = compared.flatMap(({ state, line, record }): Edit[] => {
    const found = state === 'differs' ? lines.find((candidate) => candidate.line === line) : undefined;
    if (!found || !record) return [];
    const raw = text.slice(found.start, found.end);
    const kept = /\s*[#;].*$/.exec(raw)?.[0] ?? '';
    return [{ start: found.start, end: found.end - kept.length, text: recordText(record) }];
  });
  const missing = compared.filter(({ state }) => state === 'missing');
  if (missing.length === 0) return corrections;
  const networks = [...new Set(missing.map(({ network }) => network))];
  const block = networks.flatMap((network) => {
    const own = missing.filter((need) => need.network === network);
    return [
      `# ${own[0]?.networkName ?? network}`,
      ...own.flatMap(({ record }) => (record ? [recordText(record)] : [])),
    ];
  });
  const lead = text === '' || /[\r\n]$/.test(text) ? '' : eol;
  return [
    ...corrections,
    { start: text.length, end: text.length, text: lead + block.map((line) => line + eol).join('') },
  ];
}
