import { describe, expect, it } from 'vitest';
import { chooseMedia, players } from '../../../../src/core/rehearsal/tags/choose.js';
import { fillMacros, unfilledMacros } from '../../../../src/core/formats/vast/macros.js';
import type { MediaFile } from '../../../../src/core/formats/vast/model.js';
import { inFilm, millisecondsOf, offsetOf } from '../../../../src/core/formats/vast/times.js';

describe('times', () => {
  it.each([
    ['00:00:15', 15_000],
    ['01:02:03.5', 3_723_500],
    ['100:00:00', 360_000_000],
    [' 00:00:01.005 ', 1_005],
    ['0:30', undefined],
    ['00:60:00', undefined],
    ['00:00:15,5', undefined],
    ['', undefined],
  ])('%s', (text, ms) => expect(millisecondsOf(text)).toBe(ms));

  it('of offsets are times or shares', () => {
    expect(offsetOf('25%')).toEqual({ percent: 25 });
    expect(offsetOf('100.5%')).toBeUndefined();
    expect(inFilm({ percent: 33.3 }, 15_000)).toBe(4_995);
    expect(inFilm({ ms: 5_000 }, 1)).toBe(5_000);
  });
});

describe('macros', () => {
  it('are filled, escaped, whatever their case and brackets; others stay', () => {
    const url = 'https://a.example/?a=[ASSETURI]&b=%5Berrorcode%5D&c=[IFA]&d=[MINE]&e=[PODSEQUENCE]';
    expect(fillMacros(url, { ASSETURI: 'https://f.example/x?y=1', ERRORCODE: '405' })).toBe(
      'https://a.example/?a=https%3A%2F%2Ff.example%2Fx%3Fy%3D1&b=405&c=-1&d=[MINE]&e=-1',
    );
  });

  it('take any value, half of a pair of surrogates too', () => {
    expect(fillMacros('https://a.example/?a=[ADSERVINGID]', { ADSERVINGID: 'x\ud83c' })).toBe(
      'https://a.example/?a=x%EF%BF%BD',
    );
  });

  it('that nobody fills are named once', () => {
    const url =
      'https://a.example/?a=%%SITE%%&b=${id}&c={{slot}}&d=__CB__&e=[MINE]&f=[MINE]&g=[IFA]&h=[TIMESTAMP]';
    expect(unfilledMacros(url)).toEqual({
      unknown: ['[MINE]', '%%SITE%%', '${id}', '{{slot}}', '__CB__'],
      withoutValue: ['[IFA]'],
    });
  });
});

describe('the file that is shown', () => {
  const file = (name: string, more: Partial<MediaFile> = {}): MediaFile => ({
    url: `https://f.example/${name}`,
    type: 'video/mp4',
    delivery: 'progressive',
    width: 1280,
    height: 720,
    line: 1,
    column: 1,
    ...more,
  });
  const of = (files: MediaFile[], reached: Parameters<typeof chooseMedia>[2] = [], device = players.phone) =>
    chooseMedia(files, device, reached);

  it('is the best that the line bears', () => {
    const files = [
      file('low', { bitrate: 600 }),
      file('high', { bitrate: 1900 }),
      file('over', { bitrate: 4500 }),
    ];
    expect(of(files).file?.url).toMatch(/high$/);
    expect(chooseMedia(files, players.tablet).file?.url).toMatch(/over$/);
    expect(chooseMedia(files, { ...players.phone, bitrate: 100 })).toMatchObject({
      file: { url: 'https://f.example/low' },
      why: expect.stringContaining('expect rebuffering') as string,
    });
  });

  it('is the closest to the screen where bit rates do not tell', () => {
    const sizes = [
      file('s', { width: 320, height: 180 }),
      file('m', { width: 1280, height: 720 }),
      file('l', { width: 1920, height: 1080 }),
    ];
    expect(of(sizes).file?.url).toMatch(/m$/);
    expect(chooseMedia(sizes, players.tablet).file?.url).toMatch(/l$/);
  });

  it('is none that needs a framework, is of another kind, or is not there', () => {
    expect(of([file('a', { framework: 'SIMID' })])).toMatchObject({ file: null, error: 403 });
    expect(of([file('a', { type: 'video/x-odd' })])).toMatchObject({ file: null, error: 403 });
    expect(of([])).toMatchObject({ file: null, error: 403 });
    const gone = [{ url: 'https://f.example/a', status: 404 }];
    expect(of([file('a'), file('b')], gone)).toMatchObject({ file: { url: 'https://f.example/b' } });
    expect(of([file('a')], gone)).toMatchObject({ file: null, error: 401 });
    expect(of([file('a')], [{ url: 'https://f.example/a', timedOut: true }])).toMatchObject({ error: 402 });
    expect(of([file('a')], [{ url: 'https://f.example/a' }])).toMatchObject({ error: 401 });
  });
});
