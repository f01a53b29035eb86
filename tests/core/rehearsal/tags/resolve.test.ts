import { describe, expect, it } from 'vitest';
import { maxDocuments, resolveTag, type TagAnswer } from '../../../../src/core/rehearsal/tags/resolve.js';
import { inline, tag, vast, wrapper, xml } from '../../../support/vast.js';

const start = 'https://tags.example/start';

/** Follows a tag as a client does: what is asked for is answered, until nothing is. */
function followed(
  documents: Record<string, string | Omit<TagAnswer, 'url'>>,
  { limit = 5, from = start } = {},
) {
  const answers: TagAnswer[] = [];
  for (let round = 0; round < 60; round++) {
    const tagged = resolveTag(from, answers, { limit, macros: { CACHEBUSTING: '00000007' } });
    if (tagged.next.length === 0) return { ...tagged, asked: answers.map(({ url }) => url) };
    for (const url of tagged.next) {
      const found = documents[url] ?? { failed: 'unreachable' as const };
      answers.push({ url, ...(typeof found === 'string' ? { text: found } : found) });
    }
  }
  throw new Error('It never ends.');
}
const codes = (of: ReturnType<typeof followed>) => of.deadEnds.map(({ code }) => code);

describe('a tag', () => {
  it('is followed through its wrappers, whose macros are filled, and keeps them in order', () => {
    const found = followed({
      [start]: tag(wrapper('https://tags.example/a?n=[CACHEBUSTING]', {}, 'outer')),
      'https://tags.example/a?n=00000007': tag(wrapper('https://tags.example/b', {}, 'inner')),
      'https://tags.example/b': tag(inline()),
    });
    expect(found.asked).toEqual([start, 'https://tags.example/a?n=00000007', 'https://tags.example/b']);
    expect(found.steps.map(({ depth }) => depth)).toEqual([0, 1, 2]);
    const [only, ...others] = found.ads;
    expect(others).toEqual([]);
    expect(only?.wrappers.map(({ impressions }) => impressions[0]?.url)).toEqual([
      'https://ads.tallowfield.example/outer/impression',
      'https://ads.tallowfield.example/inner/impression',
    ]);
    expect(found.deadEnds).toEqual([]);
  });

  it('asks for each address once, however many ads lead to it', () => {
    const found = followed({
      [start]: xml(vast([wrapper('https://tags.example/a'), wrapper('https://tags.example/a')])),
      'https://tags.example/a': tag(inline()),
    });
    expect(found.asked).toEqual([start, 'https://tags.example/a']);
    expect(found.ads).toHaveLength(2);
  });

  it('keeps the order of its documents, however deep its ads are', () => {
    const found = followed({
      [start]: xml(
        vast([
          wrapper('https://tags.example/a'),
          inline({ id: 'second' }),
          wrapper('https://tags.example/c'),
        ]),
      ),
      'https://tags.example/a': tag(wrapper('https://tags.example/b')),
      'https://tags.example/b': tag(inline({ id: 'first' })),
      'https://tags.example/c': tag(inline({ id: 'third' })),
    });
    expect(found.steps.map(({ url }) => url)).toEqual([
      start,
      ...['a', 'b', 'c'].map((name) => `https://tags.example/${name}`),
    ]);
    expect(found.ads.map(({ ad, step }) => [ad.id, step])).toEqual([
      ['first', 2],
      ['second', 0],
      ['third', 3],
    ]);
  });

  it('takes one ad behind a wrapper, unless that allows several', () => {
    const pod = tag(inline({ sequence: 1 }), inline({ sequence: 2 }), inline({ id: 'alone' }));
    const through = (more: Record<string, string>) =>
      followed({
        [start]: tag(wrapper('https://tags.example/a', more)),
        'https://tags.example/a': pod,
      }).ads.map(({ ad }) => ad.id);
    expect(through({})).toEqual(['alone']);
    expect(through({ allowMultipleAds: 'true' })).toEqual(['ad', 'ad', 'alone']);
    const onlyPod = followed({
      [start]: tag(wrapper('https://tags.example/a')),
      'https://tags.example/a': tag(inline({ sequence: 1 })),
    });
    expect(codes(onlyPod)).toEqual([303]);
    expect(onlyPod.deadEnds[0]?.errors.map(({ url }) => url)).toEqual([
      'https://ads.tallowfield.example/wrap/error?c=[ERRORCODE]',
    ]);
  });
});

describe('a chain without an end', () => {
  it('is left where it leads back', () => {
    const found = followed({
      [start]: tag(wrapper('https://tags.example/a')),
      'https://tags.example/a': tag(wrapper(start)),
    });
    expect(codes(found)).toEqual([302]);
    expect(found.deadEnds[0]?.why).toContain(`leads back to ${start}`);
    expect(codes(followed({ [start]: tag(wrapper(start)) }))).toEqual([302]);
  });

  it.each([0, 1, 5])('is left after %i wrappers, and not one sooner', (limit) => {
    const chain = (length: number) =>
      Object.fromEntries([
        ...Array.from({ length }, (_, at) => [
          at === 0 ? start : `https://tags.example/${at}`,
          tag(wrapper(`https://tags.example/${at + 1}`)),
        ]),
        [length === 0 ? start : `https://tags.example/${length}`, tag(inline())],
      ]) as Record<string, string>;
    expect(followed(chain(limit), { limit })).toMatchObject({ ads: [{}], deadEnds: [] });
    const longer = followed(chain(limit + 1), { limit });
    expect([longer.ads, codes(longer), longer.asked.length]).toEqual([[], [302], limit + 1]);
  });

  it('is bounded where each document leads to many others', () => {
    const wide = (at: string) =>
      xml(
        vast(
          Array.from({ length: 30 }, (_, index) =>
            wrapper(`https://tags.example/${at}${index}.`, { allowMultipleAds: 'true' }),
          ),
        ),
      );
    const documents = new Proxy<Record<string, string>>(
      {},
      { get: (_, url) => wide(String(url).split('/').at(-1) ?? '') },
    );
    const found = followed(documents);
    expect(found.steps.length).toBeLessThanOrEqual(maxDocuments);
    expect(found.asked.length).toBeLessThanOrEqual(maxDocuments);
    expect(codes(found).filter((code) => code === 300)).toHaveLength(1);
  });

  it('does not go on behind a wrapper that forbids it', () => {
    const found = followed({
      [start]: tag(wrapper('https://tags.example/a', { followAdditionalWrappers: 'false' })),
      'https://tags.example/a': tag(wrapper('https://tags.example/b')),
      'https://tags.example/b': tag(inline()),
    });
    expect([codes(found), found.ads]).toEqual([[300], []]);
  });
});

describe('an answer without an ad', () => {
  it.each([
    ['unreachable', { failed: 'unreachable' }, 301],
    ['late', { failed: 'timeout' }, 301],
    ['an error', { failed: 'status', status: 500 }, 303],
    ['no content', { failed: 'status', status: 204 }, 303],
    ['too large', { failed: 'too-large' }, 301],
    ['an empty document', { text: '<VAST version="4.2"/>' }, 303],
    ['no XML', { text: 'oops' }, 100],
    ['a page', { text: '<html/>' }, 101],
    ['another version', { text: '<VAST version="7"/>' }, 102],
  ] as const)('that is %s has the code of the standard, and a way on', (_, answer, code) => {
    const found = followed({
      [start]: tag(wrapper('https://tags.example/a')),
      'https://tags.example/a': answer,
    });
    expect([codes(found), found.ads]).toEqual([[code], []]);
    expect(found.deadEnds[0]?.errors).toHaveLength(1);
    expect(found.deadEnds[0]?.fix).not.toBe('');
    expect(followed({ [start]: answer }).deadEnds[0]?.errors).toEqual([]);
  });
});
