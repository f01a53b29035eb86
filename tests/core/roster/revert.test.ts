import { describe, expect, it } from 'vitest';
import { revertChange } from '../../../src/core/roster/revert.js';
import { kelp, placement } from '../../support/titles.js';

const title = kelp({
  placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
});
const unit = 'titles.kelp.placements.footer.units.cobalt-heron.android.production';

describe('taking one change of a title back', () => {
  it('gives a field the value that it had', () => {
    const change = { path: unit, was: 'CH-U-310772-OLD00000', is: 'CH-U-310772-BBBB1111' };
    expect(revertChange(title, change)).toEqual({
      title: {
        ...title,
        placements: {
          footer: placement('banner', 'CH-U-310772-OLD00000', 'CH-U-310772-CCCC2222'),
        },
      },
    });
    expect(title.placements.footer?.units['cobalt-heron']?.android?.production).toBe('CH-U-310772-BBBB1111');
  });

  it.each([[null], [undefined]])('takes out a field that was not there: %j', (was) => {
    const reverted = revertChange(title, {
      path: 'titles.kelp.placements.footer',
      was,
      is: title.placements.footer,
    });
    expect(reverted).toEqual({ title: { ...title, placements: {} } });
  });

  it('puts back what was taken out, with what is above it', () => {
    const gone = { path: 'titles.kelp.placements.top.settings.refresh', was: '60s', is: undefined };
    const whole = { path: 'titles.kelp.placements.top', was: placement('banner', 'x', 'y'), is: null };
    expect(revertChange(title, whole)).toMatchObject({
      title: { placements: { top: { format: 'banner' }, footer: {} } },
    });
    const bare = { ...title, placements: { top: { format: 'banner' as const, units: {} } as never } };
    expect(revertChange(bare, gone)).toMatchObject({
      title: { placements: { top: { settings: { refresh: '60s' } } } },
    });
  });

  it('leaves alone what was changed again since, and says what is there', () => {
    expect(revertChange(title, { path: unit, was: 'a', is: 'b' })).toEqual({
      why: 'changed-since',
      now: 'CH-U-310772-BBBB1111',
    });
    expect(revertChange(title, { path: 'titles.kelp.placements.top.format', was: 'a', is: 'b' })).toEqual({
      why: 'changed-since',
      now: undefined,
    });
    expect(revertChange(title, { path: 'titles.kelp.name.first.letter', was: 'a', is: 'b' })).toEqual({
      why: 'changed-since',
      now: undefined,
    });
  });

  it('brings back a title that was taken out, and does not take out one that was added', () => {
    expect(revertChange(title, { path: 'titles.kelp', was: title, is: null })).toEqual({ title });
    expect(revertChange(title, { path: 'titles.kelp', was: null, is: title })).toEqual({
      why: 'added-by-it',
    });
    expect(revertChange(title, { path: 'titles.kelp', was: undefined, is: title })).toEqual({
      why: 'added-by-it',
    });
  });

  it('refuses what would make no title', () => {
    expect(() => revertChange(title, { path: 'titles.kelp.name', was: 7, is: 'Kelp' })).toThrow();
  });

  it('treats lists as whole values', () => {
    const change = { path: 'titles.kelp.stages.test', was: ['dev'], is: ['debug'] };
    expect(revertChange(title, change)).toMatchObject({
      title: { stages: { test: ['dev'], production: ['release'] } },
    });
    expect(revertChange(title, { path: 'titles.kelp.stages.test.0', was: 'dev', is: 'debug' })).toMatchObject(
      {
        why: 'changed-since',
      },
    );
  });
});
