import { capabilities } from '../../../api/capabilities.js';
import { pages } from '../../../api/pages.js';
import type { SearchHit } from '../../../core/search/model.js';

/** Something that the palette leads to. */
export interface Place {
  kind: SearchHit['kind'] | 'page' | 'command';
  name: string;
  where: string;
  to: string;
}

/** Where a hit leads to. An ID leads to its trace. */
export function placeOf({ kind, name, where, title, placement, network }: SearchHit): Place {
  const to = {
    id: `/ids/${encodeURIComponent(name)}`,
    title: `/titles/${title}`,
    placement: `/titles/${title}?find=${encodeURIComponent(placement ?? '')}`,
    network: `/networks/${network}`,
    rule: `/rules/${name}`,
  }[kind];
  return { kind, name, where, to };
}

const everywhere: readonly (readonly [name: string, to: string, words: string])[] = [
  ['Titles', '/', 'portfolio home all state'],
  ['All earnings', '/tally', 'revenue money tally numbers'],
  ['Numbers', '/tally/numbers', 'fetch import tables rates releases'],
  ['Networks', '/networks', 'profiles what each needs'],
  ['Describe a network', '/networks/new', 'profile new add lint draft'],
  ['Many at once', '/bulk', 'bulk paste table ids rename template enrol copy'],
  ['app-ads.txt', '/app-ads', 'sellers records site verify'],
  ['Attribution', '/attribution', 'skadnetwork identifiers'],
  ['Tags', '/tags', 'vast video wrappers play'],
  ['Publisher', '/publisher', 'accounts credentials secrets domain'],
  ['This browser', '/settings', 'settings editor theme'],
  ['Documents', '/documents', 'roster import export yaml'],
  ['Rules', '/rules', 'checks findings'],
  ['New title', '/titles/new', 'add'],
  ['Adopt trees', '/titles/adopt', 'draft a title from source'],
];
const ofTitle: readonly (readonly [name: string, path: string, words: string])[] = [
  ['Board', '', 'ids test production android ios'],
  ['Android', '/android', 'edition build findings edits'],
  ['iOS', '/ios', 'edition build findings edits'],
  ['Would it show?', '/rehearsal', 'rehearse session'],
  ['Earnings', '/tally', 'revenue money silent'],
  ['Steps', '/steps', 'what to do next'],
  ['Record', '/record', 'placements ids edit'],
  ['At the networks', '/networks', 'provision create units collect inventory list'],
  ['Trees', '/trees', 'link folder source checkout'],
  ['History', '/history', 'changes who revert'],
];

/** The pages whose name or keywords contain everything that was typed; those of the current title first. */
export function pagesWith(text: string, title: { id: string; name: string } | undefined): Place[] {
  const own = title
    ? ofTitle.map(([name, path, words]): [Place, string] => [
        { kind: 'page', name, where: title.name, to: `/titles/${title.id}${path}` },
        words,
      ])
    : [];
  const all = everywhere.map(([name, to, words]): [Place, string] => [
    { kind: 'page', name, where: 'all titles', to },
    words,
  ]);
  const parts = text.toLowerCase().split(/\s+/).filter(Boolean);
  return [...own, ...all].flatMap(([place, words]) => {
    const known = `${place.name} ${words}`.toLowerCase();
    return parts.every((part) => known.includes(part)) ? [place] : [];
  });
}

/** The commands whose name contains the text, and the pages that do the same. */
export function commandsWith(text: string, title: string | undefined): Place[] {
  const wanted = text
    .trim()
    .toLowerCase()
    .replace(/^syndexa\s+/, '');
  if (wanted === '') return [];
  return Object.entries(capabilities).flatMap(([name, place]) => {
    if (!name.includes(wanted)) return [];
    const to = 'page' in place ? addressOf(pages[place.page], title) : undefined;
    // Without a title in hand, the page of one is chosen from all of them.
    const where =
      'page' in place ? (to === undefined ? 'choose a title first' : 'the page for it') : place.terminal;
    return [{ kind: 'command' as const, name: `syndexa ${name}`, where, to: to ?? '/' }];
  });
}

/** The address of a page; undefined where something else than the title has to be known for it. */
function addressOf(page: string, title: string | undefined): string | undefined {
  const address = title === undefined ? page : page.replace(':title', title).replace(':platform', 'android');
  return address.includes(':') ? undefined : address;
}
