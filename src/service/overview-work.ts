import { setImmediate as yieldToEventLoop } from 'node:timers/promises';
import type { Board } from '../core/board/model.js';
import { traceId, type IdTrace } from '../core/id-trace/trace.js';
import { recogniser } from '../core/network/recognise.js';
import { portfolioEntry, type PortfolioEntry } from '../core/portfolio/portfolio.js';
import { heldIds } from '../core/roster/validate.js';
import { searchHits } from '../core/search/hits.js';
import type { SearchHit } from '../core/search/model.js';
import { dayText } from '../core/tally/days.js';
import type { ServiceContext } from './context.js';
import { lastRehearsals } from './rehearsals/last.js';

/** The board of a title with more placements is made in a worker thread. */
const largeBoard = 100;
const dayMs = 86_400_000;
/** The number of days over which the numbers of an ID are summed. */
const traced = 28;

/** Answers what is asked across all titles. */
export class OverviewWork {
  constructor(private readonly context: ServiceContext) {}

  /** The board of a title. */
  board(name: string, signal: AbortSignal): Promise<Board> {
    const { roster, trees, inventories, steps, profiles, runner } = this.context;
    const { id, title } = roster.get(name);
    const sources = {
      readings: trees.readings(id),
      inventories: inventories.about(heldIds(title).map((held) => held.id)),
      rehearsals: lastRehearsals({ steps, trees }, id),
      now: this.context.now().toISOString(),
    };
    const isLarge = Object.keys(title.placements).length > largeBoard;
    return runner.record('board', [id, title, profiles.profiles(), sources], { signal, isLarge });
  }

  /** Titles in short. Others are served between two of them. */
  async portfolio(titles: readonly string[], signal: AbortSignal): Promise<PortfolioEntry[]> {
    const yesterday = new Date(this.context.now().getTime() - dayMs).toISOString();
    const changes = this.context.overview.changesSince(yesterday);
    const entries: PortfolioEntry[] = [];
    for (const id of titles) {
      signal.throwIfAborted();
      const board = await this.board(id, signal);
      entries.push(portfolioEntry(board, changes.get(id) ?? null));
      await yieldToEventLoop();
    }
    return entries;
  }

  /** Finds a text in the record, the networks and the rules. */
  search(text: string, most: number): SearchHit[] {
    const profiles = this.context.profiles.profiles();
    const wanted = text.trim();
    return searchHits(
      wanted,
      {
        titles: wanted === '' ? [] : this.context.overview.candidates(wanted),
        profiles,
        recognised: recogniser(profiles).recognise(wanted),
      },
      most,
    );
  }

  /** All that is known of an ID, exactly as it is written. */
  trace(id: string): IdTrace {
    const { overview, roster, inventories, profiles } = this.context;
    const holding = overview.candidates(id).filter((title) => heldIds(title).some((held) => held.id === id));
    return traceId(id, {
      profiles: profiles.profiles(),
      titles: holding.map((one) => ({ id: one.id, title: roster.get(one.id).title })),
      readings: overview.readingsWith(id),
      inventories: inventories.about([id]),
      changes: overview.changesOf(id),
      earned: this.earned(id),
    });
  }

  private earned(id: string): IdTrace['earned'] {
    const { overview, tallies } = this.context;
    return overview.seriesOf(id).flatMap(({ id: series, network }) => {
      const last = tallies.span([series])?.to;
      if (last === undefined) return [];
      const span = { from: last - traced + 1, to: last };
      return tallies
        .sums([series], span, { series: false, day: false, country: false })
        .map(({ currency, requests, impressions, revenue }) => ({
          network,
          from: dayText(span.from),
          to: dayText(span.to),
          currency,
          requests,
          impressions,
          revenue,
        }));
    });
  }
}
