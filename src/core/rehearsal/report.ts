import * as z from 'zod';
import { Finding } from '../checks/model.js';
import { TraceEvent, Verdict } from '../facts/trace.js';
import { groupBy } from '../text/group-by.js';
import { Format, Platform, Stage } from '../words/words.js';
import type { FactOf } from '../facts/model.js';
import type { App } from './app/model.js';
import { bannerAnchor, bannerSize } from '../words/banner-sizes.js';
import { anchorNames } from '../words/names.js';

/** A request to a network, and its answer. */
export const Exchange = z
  .object({
    at: z.number().meta({ description: 'Virtual milliseconds.' }),
    network: z.string(),
    placement: z.string(),
    method: z.string(),
    address: z.string(),
    request: z.string().nullable(),
    status: z.number().nullable().meta({ description: 'Null where no answer came.' }),
    response: z.string(),
  })
  .meta({ description: 'A request to the partner, and its answer.' });
export type Exchange = z.infer<typeof Exchange>;

const RehearsedNetwork = z.object({
  network: z.string(),
  unit: z.string().nullable(),
  verdict: Verdict,
  assumed: z.array(z.string()).meta({ description: 'What could not be read, and what was assumed instead.' }),
});

export const RehearsedPlacement = z
  .object({
    placement: z.string(),
    format: Format,
    screen: z.string().nullable().meta({ description: 'The screen that asks for it; null for none.' }),
    banner: z
      .object({ width: z.number(), height: z.number(), anchor: z.enum(anchorNames) })
      .nullable()
      .meta({
        description: 'For a banner: its size in density-independent pixels, and where it is anchored.',
      }),
    verdict: Verdict,
    networks: z.array(RehearsedNetwork).meta({ description: 'In the order in which they are tried.' }),
  })
  .meta({ description: 'What became of a placement in one variant.' });
export type RehearsedPlacement = z.infer<typeof RehearsedPlacement>;

export const RehearsalRun = z
  .object({
    platform: Platform,
    module: z.string(),
    variant: z.string(),
    stage: Stage,
    placements: z.array(RehearsedPlacement),
    /** Only if requested. */
    trace: z.array(TraceEvent).optional(),
    exchanges: z.array(Exchange).optional(),
    cut: z.number().optional().meta({ description: 'How many further events and exchanges are not listed.' }),
  })
  .meta({ description: 'The rehearsal of one variant.' });
export type RehearsalRun = z.infer<typeof RehearsalRun>;

export const RehearsalReport = z
  .object({
    title: z.string(),
    scenario: z.string(),
    seed: z.number(),
    device: z.object({ width: z.number(), height: z.number() }),
    partner: z.enum(['running', 'started']).meta({
      description: 'Whether the running partner was used, or a temporary one that knows the IDs on record.',
    }),
    runs: z.array(RehearsalRun),
    findings: z.array(Finding),
    clean: z
      .boolean()
      .meta({ description: 'Whether every placement showed an ad of its stage, without findings.' }),
  })
  .meta({ title: 'Rehearsal', description: 'What a simulated session showed for every placement.' });
export type RehearsalReport = z.infer<typeof RehearsalReport>;

/** What was rehearsed last of an edition, for the board and the steps. */
export const LastRehearsal = z.object({
  at: z.string(),
  scenario: z.string(),
  snapshot: z.string(),
  runs: z.array(RehearsalRun.omit({ trace: true, exchanges: true, cut: true })),
  /** The rules that spoke, with the network that they spoke of. */
  found: z.array(z.object({ rule: z.string(), network: z.string().nullable() })),
});
export type LastRehearsal = z.infer<typeof LastRehearsal>;

/** Verdicts with an ad on screen. */
export const isSeen = ({ is }: Verdict): boolean => is === 'shown' || is === 'delivered';

/**
 * Whether a verdict is what a stage should have: a test ad in builds for testing, one that earns money in what ships.
 */
export const isRight = (verdict: Verdict, stage: Stage): boolean =>
  isSeen(verdict) && (verdict.test === undefined || verdict.test === (stage === 'test'));

/** The network that decides the verdict of a placement. */
export function decidedBy({ verdict, networks }: RehearsedPlacement): string {
  const said = JSON.stringify(verdict);
  return networks.find((one) => JSON.stringify(one.verdict) === said)?.network ?? networks[0]?.network ?? '';
}

/** The placements of a run, with one verdict each: the best that a network gave. */
export function placementsOf(app: App, facts: readonly FactOf<'rehearsed'>[]): RehearsedPlacement[] {
  const names = new Map(app.screens.map(({ id, name }) => [id, name]));
  return [...groupBy(facts, ({ placement }) => placement ?? '').entries()].flatMap(([placement, mine]) => {
    const [first] = mine;
    if (!first) return [];
    const slot = app.slots.find((one) => one.placement === placement && one.load);
    const seen = mine.find(({ verdict }) => isSeen(verdict));
    const asked = mine.find(({ verdict }) => verdict.is !== 'never-requested');
    return [
      {
        placement,
        format: first.format,
        screen: slot ? (names.get(slot.screen) ?? slot.screen.split('#')[1] ?? slot.screen) : null,
        banner: bannerOf(first),
        verdict: (seen ?? asked ?? first).verdict,
        networks: mine.map(({ network, unit, verdict, events }) => ({
          network: network ?? '',
          unit,
          verdict,
          assumed: [...new Set(events.flatMap(({ assumed }) => assumed ?? []))],
        })),
      },
    ];
  });
}

/** The size of a banner on the screen of the device, and where it is held. */
function bannerOf({ format, settings, screen, heldAt }: FactOf<'rehearsed'>): RehearsedPlacement['banner'] {
  if (format !== 'banner') return null;
  return {
    ...bannerSize(settings.size ?? 'standard', screen),
    anchor: bannerAnchor(settings.anchor, heldAt),
  };
}
