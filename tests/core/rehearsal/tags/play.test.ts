import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { players } from '../../../../src/core/rehearsal/tags/choose.js';
import { actionNames, type Action, type PlayLine } from '../../../../src/core/rehearsal/tags/playback.js';
import { playTag } from '../../../../src/core/rehearsal/tags/play.js';
import { resolveTag, type TagAnswer } from '../../../../src/core/rehearsal/tags/resolve.js';
import { inline, mediaFile, tag, vast, wrapper, xml, type AdParts } from '../../../support/vast.js';

const start = 'https://tags.example/start';
const startsAt = Date.parse('2026-06-01T12:00:00Z');

function played(text: string, actions: Action[] = [], more: TagAnswer[] = [], seed = 7): PlayLine[] {
  const resolved = resolveTag(start, [{ url: start, text }, ...more], { limit: 5 });
  return playTag(resolved, { player: players.phone, actions, startsAt, seed });
}
const names = (lines: PlayLine[]) => lines.map(({ name }) => name);
const at = (seconds: number, action: Action['do']): Action => ({ at: seconds * 1000, do: action });

describe('a linear ad', () => {
  it('is gone through from its impression to its end, then content goes on', () => {
    const lines = played(tag(inline({ seconds: 20 })));
    expect(lines.map(({ at: when, name }) => [when, name])).toEqual([
      [0, 'impression'],
      [0, 'start'],
      [2_000, 'progress'],
      [2_000, 'viewable'],
      [5_000, 'firstQuartile'],
      [10_000, 'midpoint'],
      [15_000, 'thirdQuartile'],
      [20_000, 'complete'],
      [20_000, 'content'],
    ]);
  });

  it('calls what its wrappers ask for too, the outermost first', () => {
    const lines = played(
      tag(wrapper('https://tags.example/a')),
      [],
      [{ url: 'https://tags.example/a', text: tag(inline()) }],
    );
    expect(lines.find(({ name }) => name === 'midpoint')?.calls).toEqual([
      'https://ads.tallowfield.example/wrap/midpoint',
      'https://ads.tallowfield.example/in/midpoint',
    ]);
  });

  it('stands still while it is paused or out of sight, and goes on where it was', () => {
    const lines = played(tag(inline({ seconds: 8 })), [
      at(1, 'pause'),
      at(3, 'background'),
      at(4, 'skip'),
      at(5, 'return'),
      at(6, 'resume'),
      at(7, 'background'),
      at(17, 'return'),
    ]);
    const seen = lines.map(
      ({ at: when, name, what }) => `${when / 1000} ${name}${what === 'ignored' ? ' ignored' : ''}`,
    );
    expect(seen).toEqual([
      '0 impression',
      '0 start',
      '1 pause',
      '3 background',
      '4 skip ignored',
      '5 return',
      '6 resume',
      '7 firstQuartile',
      '7 progress',
      '7 pause',
      '17 resume',
      '19 midpoint',
      '19 viewable',
      '21 thirdQuartile',
      '23 complete',
      '23 content',
    ]);
  });

  it('is skipped when its offset is reached, in time of the video', () => {
    const skippable = tag(inline({ seconds: 20, skip: '25%' }));
    expect(names(played(skippable, [at(5, 'skip')]))).toEqual(
      expect.arrayContaining(['firstQuartile', 'skip', 'content']),
    );
    const early = played(skippable, [at(2, 'pause'), at(6, 'resume'), at(7, 'skip'), at(9, 'skip')]);
    expect(early.filter(({ name }) => name === 'skip').map(({ what, at: when }) => [when, what])).toEqual([
      [7_000, 'ignored'],
      [9_000, 'event'],
    ]);
    expect(played(tag(inline()), [at(14, 'skip')]).find(({ name }) => name === 'skip')?.note).toBe(
      'This ad cannot be skipped.',
    );
  });

  it('waits where a click leads away, until somebody comes back', () => {
    const gone = played(tag(inline()), [at(4, 'click')]);
    expect(gone.at(-1)).toMatchObject({
      what: 'stuck',
      note: 'The video stays paused: the user never comes back.',
    });
    expect(gone.find(({ name }) => name === 'click')?.calls).toEqual([
      'https://ads.tallowfield.example/in/click',
    ]);
    expect(names(played(tag(inline()), [at(4, 'click'), at(60, 'return')])).slice(-2)).toEqual([
      'complete',
      'content',
    ]);
  });

  it('that fails is told with its code, and its macros are filled', () => {
    const line = played(tag(inline()), [at(4, 'fail')]).find(({ what }) => what === 'error');
    expect(line).toMatchObject({ code: 405, calls: ['https://ads.tallowfield.example/in/error?c=405'] });
    const odd = tag(inline({ media: [mediaFile('a', { type: 'video/x-odd' })] }));
    expect(played(odd)[0]).toMatchObject({
      code: 403,
      calls: ['https://ads.tallowfield.example/in/error?c=403'],
    });
  });
});

describe('a pod', () => {
  const pod = (...parts: AdParts[]) => tag(...parts.map((one) => inline(one)));
  const started = (lines: PlayLine[]) =>
    lines
      .filter(({ name }) => name === 'start')
      .map(({ calls }) => /example\/(\w+)\//.exec(calls[0] ?? '')?.[1]);

  it('is shown in the order of its sequence, one ad after another', () => {
    const lines = played(pod({ sequence: 2, at: 'b' }, { sequence: 1, at: 'a' }, { at: 'spare' }));
    expect(started(lines)).toEqual(['a', 'b']);
    expect(lines.filter(({ name }) => name === 'impression').map(({ at: when }) => when)).toEqual([
      0, 15_000,
    ]);
  });

  it('fills the place of an ad that fails with one that stands alone', () => {
    const broken = [mediaFile('x', { type: 'video/x-odd' })];
    const lines = played(
      pod({ sequence: 1, at: 'a', media: broken }, { sequence: 2, at: 'b' }, { at: 'spare' }),
    );
    expect(started(lines)).toEqual(['spare', 'b']);
  });

  it('fills the place of a document that never came, where it is in the order', () => {
    const gone = { ...wrapper('https://tags.example/gone') };
    gone.attributes = { ...gone.attributes, sequence: '1' };
    const text = xml(vast([inline({ sequence: 2, at: 'b' }), gone, inline({ at: 'spare' })]));
    const lines = played(text, [], [{ url: 'https://tags.example/gone', failed: 'timeout' }]);
    expect(started(lines)).toEqual(['spare', 'b']);
    expect(lines.find(({ what }) => what === 'error')?.code).toBe(301);
  });

  it('without a sequence shows one ad', () => {
    expect(started(played(pod({ at: 'a' }, { at: 'b' })))).toEqual(['a']);
  });
});

describe('whatever a user does', () => {
  const actions = fc.array(
    fc.record({ at: fc.integer({ min: 0, max: 90_000 }), do: fc.constantFrom(...actionNames) }),
    { maxLength: 12 },
  );
  const ads = fc.array(
    fc.record({
      seconds: fc.integer({ min: 0, max: 40 }),
      sequence: fc.constantFrom(undefined, 1, 2, 3),
      skip: fc.constantFrom(undefined, '00:00:05', '50%', '100%'),
      isBroken: fc.boolean(),
    }),
    { minLength: 1, maxLength: 4 },
  );
  const textOf = (
    parts: { seconds: number; sequence: number | undefined; skip: string | undefined; isBroken: boolean }[],
  ) =>
    xml(
      vast(
        parts.map(({ isBroken, sequence, skip, seconds }, index) =>
          inline({
            seconds,
            at: `ad${index}`,
            ...(sequence === undefined ? {} : { sequence }),
            ...(skip === undefined ? {} : { skip }),
            ...(isBroken ? { media: [mediaFile('x', { type: 'video/x-odd' })] } : {}),
          }),
        ),
      ),
    );

  it('time does not go back, quartiles come in order and once, and it ends with content or is stuck', () => {
    fc.assert(
      fc.property(ads, actions, fc.integer({ min: 0, max: 99_999_999 }), (parts, done, seed) => {
        const lines = played(textOf(parts), done, [], seed);
        expect(played(textOf(parts), done, [], seed)).toEqual(lines);
        const times = lines.map((line) => line.at);
        expect(times).toEqual([...times].sort((a, b) => a - b));
        const ends = lines.filter(({ what }) => what === 'content' || what === 'stuck');
        expect(ends).toHaveLength(1);
        const order = ['impression', 'start', 'firstQuartile', 'midpoint', 'thirdQuartile', 'complete'];
        for (const number of new Set(lines.flatMap(({ ad }) => ad ?? []))) {
          const mine = lines.filter(({ ad }) => ad === number);
          const marks = mine.filter(({ name }) => order.includes(name)).map(({ name }) => name);
          expect(marks).toEqual(order.slice(0, marks.length));
          const heads = mine.flatMap(({ playhead }) => playhead ?? []);
          expect(heads).toEqual([...heads].sort((a, b) => a - b));
        }
        // Nothing is called that was not asked for, and nothing keeps a macro of the standard.
        for (const { calls } of lines) for (const url of calls) expect(url).not.toMatch(/\[[A-Z]+\]/);
      }),
      { numRuns: 200 },
    );
  });
});
