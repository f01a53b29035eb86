import { describe, expect, it } from 'vitest';
import type { TraceEvent } from '../../../src/core/facts/trace.js';
import type { Answer, Question } from '../../../src/core/rehearsal/device/questions.js';
import { contextOf, generous, rehearseAll } from '../../support/rehearsal.js';
import { androidFiles, kelp, placement } from '../../support/trees.js';

const unit = 'CH-U-310772-DDDD3333';
const screen = (failed: string) =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/Screen.kt': `class Screen : Activity(), HeronListener {
  private var ad: HeronInterstitial? = null
  override fun onCreate(state: Bundle?) { ad = HeronInterstitial.load(this, "${unit}", this) }
  fun onTap() { val now = ad
    if (now?.isReady == true) now.show(this) else next() }
  override fun onHeronFailed(code: Int) { ${failed} }
  override fun onHeronClosed() { next() }
  override fun onDestroy() { ad?.release() }
}
`,
  });
const again = `ad = HeronInterstitial.load(this, "${unit}", this)`;
const title = kelp({
  editions: { android: { identifier: 'example.brine.kelp' } },
  placements: { page: placement('interstitial', unit, 'CH-U-310772-EEEE4444') },
});

/** A network that has no ad for the first requests. */
function emptyAtFirst(times: number): (question: Question) => Answer {
  let left = times;
  return (question) => (question.asks === 'ad' && left-- > 0 ? { is: 'no-fill' } : generous(question));
}

/** What one session of the release build did. */
function traceOf(failed: string, answer: (question: Question) => Answer): readonly TraceEvent[] {
  const context = contextOf({ files: screen(failed), title });
  const [first] = rehearseAll(context, { answer });
  return first?.trace ?? [];
}
const reasons = (trace: readonly TraceEvent[]) =>
  trace.filter(({ what }) => what === 'load').map(({ because }) => because);
const names = (trace: readonly TraceEvent[]) => trace.map(({ what }) => what);

describe('code that loads again in its own failure callback', () => {
  it('loads until there is an ad, and shows it', () => {
    const trace = traceOf(again, emptyAtFirst(3));
    expect(reasons(trace)).toEqual(['open', 'retry', 'retry', 'retry']);
    expect(names(trace)).toContain('impression');
  });

  it('loads once where there is an ad at once', () => {
    expect(reasons(traceOf(again, generous))).toEqual(['open']);
  });

  it('is not repeated without end, and the last time says so', () => {
    const trace = traceOf(again, emptyAtFirst(Infinity));
    const loads = trace.filter(({ what }) => what === 'load');
    expect(loads).toHaveLength(11);
    expect(loads.at(-1)?.text).toContain('does not repeat it again');
    expect(loads.slice(0, -1).flatMap(({ text }) => text ?? [])).toEqual([]);
    expect(names(trace)).not.toContain('impression');
  });

  it('does not load again where the callback does something else', () => {
    expect(reasons(traceOf('next()', emptyAtFirst(1)))).toEqual(['open']);
  });

  it('waits for the callback: a load never follows its failure at the same time', () => {
    const trace = traceOf(again, emptyAtFirst(3));
    const failures = trace.filter(({ what }) => what === 'no-fill').map(({ at }) => at);
    for (const { at, because } of trace.filter(({ what }) => what === 'load'))
      if (because === 'retry') expect(failures).not.toContain(at);
  });
});
