import type { FactOf } from '../facts/model.js';
import type { TraceEvent, Verdict } from '../facts/trace.js';
import { groupBy } from '../text/group-by.js';
import type { App, AppSlot } from './app/model.js';
import type { Scenario } from './scenario/model.js';

/** What the trace of a session says of each placement and network, as facts for the rules. */
export function outcomes(app: App, scenario: Scenario, trace: readonly TraceEvent[]): FactOf<'rehearsed'>[] {
  const stop = trace.find(({ what }) => what === 'stopped');
  const mine = groupBy(trace, keyOf);
  return app.slots.map((slot) => {
    const events = mine.get(keyOf(slot)) ?? [];
    const { platform, module, variant, stage } = app;
    const { load, show, network, placement, format, unit, settings, heldAt } = slot;
    const place = (load ?? show)?.place;
    return {
      kind: 'rehearsed',
      network,
      placement,
      platform,
      module,
      variants: [variant],
      name: placement,
      value: scenario.name,
      effective: true,
      place: place ?? noPlace,
      chain: [],
      stage,
      format,
      unit,
      settings,
      verdict: verdictOf(slot, events, stop),
      events: [...events],
      screen: { width: scenario.device.width, height: scenario.device.height },
      ...(heldAt === undefined ? {} : { heldAt }),
      ...(slot.covers === undefined ? {} : { covers: slot.covers }),
    };
  });
}

/** Where no code asks for a placement there is no place to show. */
const noPlace = { path: '', line: 1, column: 1 };

const keyOf = ({ network, placement }: { network?: string; placement?: string }): string =>
  JSON.stringify([network ?? null, placement ?? null]);

/** What became of a placement on a network: the first thing of these that is true. */
function verdictOf(slot: AppSlot, events: readonly TraceEvent[], stop: TraceEvent | undefined): Verdict {
  const shown = events.find(({ what }) => what === 'impression');
  if (shown) {
    const requested = events.findLast(({ what, at }) => what === 'request' && at <= loadedAt(events, shown));
    return {
      is: 'shown',
      after: Math.max(loadedAt(events, shown) - (requested?.at ?? shown.at), 0),
      ...(shown.test === undefined ? {} : { test: shown.test }),
    };
  }
  const delivered = events.find(({ what }) => what === 'delivered');
  if (delivered)
    return { is: 'delivered', ...(delivered.test === undefined ? {} : { test: delivered.test }) };
  if (stop) return { is: 'stopped', code: stop.code ?? 'stopped', text: stop.text ?? 'The app stops.' };
  if (!slot.load && slot.isOpen)
    return {
      is: 'cannot-tell',
      code: 'which-placement',
      text: `Code requests ads of this format, but reading cannot tell for which placement.`,
    };
  if (!slot.load) return { is: 'never-requested', text: 'No code requests an ad.' };
  const refused = events.find(({ what }) => what === 'refused');
  if (refused) return { is: 'refused', ...said(refused) };
  if (events.some(({ what }) => what === 'filled'))
    return { is: 'never-shown', text: 'An ad was loaded but never shown.' };
  const bad = events.find(({ what }) => what === 'failed');
  if (bad) return { is: bad.code === 'not-described' ? 'cannot-tell' : 'failed', ...said(bad) };
  if (events.some(({ what }) => what === 'no-fill')) return { is: 'no-ad', text: 'The network had no ad.' };
  if (events.some(({ what }) => what === 'timed-out'))
    return { is: 'timed-out', text: 'No answer came in time.' };
  return { is: 'never-requested', text: 'Nothing in this session made the code request an ad.' };
}

const said = ({ code, text }: TraceEvent) => ({
  ...(code === undefined ? {} : { code }),
  ...(text === undefined ? {} : { text }),
});

/** When the ad of an event was loaded. */
function loadedAt(events: readonly TraceEvent[], { ad, at }: TraceEvent): number {
  return events.find((one) => one.what === 'filled' && one.ad === ad)?.at ?? at;
}
