import { fillMacros, type MacroValues } from '../../formats/vast/macros.js';
import type { Linear, MediaFile, VastUrl } from '../../formats/vast/model.js';
import type { Action, ActionName, PlayLine, PlayOptions } from './playback.js';
import type { WrappedAd } from './resolve.js';
import { inFilm } from '../../formats/vast/times.js';
import { vastVersions } from '../../formats/vast/versions.js';

/** The names under which versions of VAST track what is one event for the player. */
const trackedAs = new Map<string, readonly string[]>([
  ['fullscreen', ['fullscreen', 'playerExpand']],
  ['exit-fullscreen', ['exitFullscreen', 'playerCollapse']],
  ['close', ['closeLinear', 'close']],
]);

/** How long a video must play without interruption to count as viewable (MRC: two seconds), in milliseconds. */
const viewableAfter = 2_000;

interface Showing {
  now: number;
  number: number;
  count: number;
  actions: Action[];
  options: PlayOptions;
  linear: Linear;
  file: MediaFile;
  /** The duration of the video, in milliseconds. */
  duration: number;
}

interface Mark {
  at: number;
  name: string;
  urls: VastUrl[];
}

/** Plays one linear ad, from its first frame until something ends it. */
export class LinearPlayer {
  private readonly lines: PlayLine[] = [];
  private readonly linears: Linear[];
  private readonly marks: Mark[];
  private now: number;
  private playhead = 0;
  private pausedBy: 'user' | 'leaving' | null = null;
  private isAway = false;
  /** The position since which it has played without interruption; null once it counted as viewable. */
  private runsSince: number | null = 0;
  private ended: 'shown' | 'failed' | null = null;

  constructor(
    private readonly item: WrappedAd,
    private readonly given: Showing,
  ) {
    this.now = given.now;
    this.linears = [...item.wrappers, item.ad].flatMap(({ linear }) => linear ?? []);
    this.marks = this.marksOf();
  }

  play(): { lines: PlayLine[]; now: number; failed: boolean; isStuck: boolean } {
    const { actions } = this.given;
    while (!this.ended) {
      const mark = this.nextMark();
      const due = mark && !this.pausedBy ? this.now + (mark.at - this.playhead) : Infinity;
      const action = actions[0];
      if (action && action.at < due) {
        actions.shift();
        this.advance(Math.max(action.at, this.now));
        this.act(action);
      } else if (mark && due < Infinity) {
        this.advance(due);
        this.reach(mark);
      } else {
        const why = this.isAway ? 'the user never comes back' : 'the user never resumes it';
        this.say({ what: 'stuck', name: 'paused', note: `The video stays paused: ${why}.`, calls: [] });
        break;
      }
    }
    return { lines: this.lines, now: this.now, failed: this.ended === 'failed', isStuck: !this.ended };
  }

  /** What is due in the video, by position. */
  private marksOf(): Mark[] {
    const { duration } = this.given;
    const { wrappers, ad } = this.item;
    const quarter = (part: number, name: string): Mark => ({
      at: Math.round((duration * part) / 4),
      name,
      urls: this.tracked(name),
    });
    const progress = this.linears.flatMap(({ trackers }) =>
      trackers.flatMap((tracker): Mark[] =>
        tracker.event === 'progress' && tracker.offset
          ? [{ at: inFilm(tracker.offset, duration), name: 'progress', urls: [tracker] }]
          : [],
      ),
    );
    const first: Mark[] = [
      { at: 0, name: 'loaded', urls: this.tracked('loaded') },
      { at: 0, name: 'impression', urls: [...wrappers, ad].flatMap(({ impressions }) => impressions) },
      { at: 0, name: 'creativeView', urls: this.tracked('creativeView') },
      { at: 0, name: 'start', urls: this.tracked('start') },
    ];
    const later = [
      quarter(1, 'firstQuartile'),
      quarter(2, 'midpoint'),
      quarter(3, 'thirdQuartile'),
      ...progress.filter(({ at }) => at <= duration),
      quarter(4, 'complete'),
    ];
    return [
      ...first,
      ...later.sort((a, b) => a.at - b.at || Number(a.name === 'complete') - Number(b.name === 'complete')),
    ];
  }

  /** What is due next; `viewable` is due once the video has played long enough without interruption. */
  private nextMark(): Mark | undefined {
    const next = this.marks[0];
    const seen = this.runsSince === null ? Infinity : this.runsSince + viewableAfter;
    if (!next || seen >= next.at || seen > this.given.duration) return next;
    return {
      at: seen,
      name: 'viewable',
      urls: [...this.item.wrappers, this.item.ad].flatMap(({ viewable }) => viewable),
    };
  }

  private advance(to: number): void {
    if (!this.pausedBy) this.playhead += to - this.now;
    this.now = to;
  }

  private reach(mark: Mark): void {
    if (mark === this.marks[0]) this.marks.shift();
    else this.runsSince = null;
    if (mark.urls.length > 0 || !['loaded', 'creativeView', 'viewable', 'progress'].includes(mark.name))
      this.event(mark.name, mark.urls);
    if (mark.name === 'complete') this.ended = 'shown';
  }

  private act({ do: name }: Action): void {
    if (this.isAway && name !== 'return' && name !== 'fail')
      return this.ignore(name, 'The app is in the background.');
    const acts: Record<ActionName, () => void> = {
      pause: () => (this.pausedBy ? this.ignore(name, 'The video is already paused.') : this.pause('user')),
      resume: () => (this.pausedBy ? this.resume() : this.ignore(name, 'The video is playing.')),
      background: () => this.leave('The app goes to the background.'),
      return: () => this.comeBack(),
      skip: () => this.skip(),
      click: () => this.click(),
      mute: () => this.event('mute', this.tracked('mute')),
      unmute: () => this.event('unmute', this.tracked('unmute')),
      fullscreen: () => this.event('fullscreen', this.tracked('fullscreen')),
      'exit-fullscreen': () => this.event('exit-fullscreen', this.tracked('exit-fullscreen')),
      close: () => {
        this.event('close', this.tracked('close'));
        this.ended = 'shown';
      },
      fail: () => this.fail(),
    };
    acts[name]();
  }

  private pause(by: 'user' | 'leaving'): void {
    this.pausedBy = by;
    this.event('pause', this.tracked('pause'));
  }

  private resume(): void {
    this.pausedBy = null;
    if (this.runsSince !== null) this.runsSince = this.playhead;
    this.event('resume', this.tracked('resume'));
  }

  private leave(note: string): void {
    this.isAway = true;
    if (!this.pausedBy) this.pause('leaving');
    else this.say({ what: 'event', name: 'background', note, calls: [] });
  }

  private comeBack(): void {
    if (!this.isAway) return this.ignore('return', 'The app is in the foreground.');
    this.isAway = false;
    if (this.pausedBy === 'leaving') this.resume();
    else
      this.say({
        what: 'event',
        name: 'return',
        note: 'The video stays paused, as the user left it.',
        calls: [],
      });
  }

  private skip(): void {
    const offset = this.item.ad.linear?.skip;
    if (!offset) return this.ignore('skip', 'This ad cannot be skipped.');
    const from = inFilm(offset, this.given.duration);
    if (this.playhead < from)
      return this.ignore('skip', `It can be skipped after ${from / 1000} s of the video.`);
    this.event('skip', this.tracked('skip'));
    this.ended = 'shown';
  }

  private click(): void {
    const { linears } = this;
    const through = this.item.ad.linear?.clickThrough;
    if (!through) return this.ignore('click', 'The ad has no ClickThrough, so a click does nothing.');
    const note = `It opens ${through.url}`;
    this.event(
      'click',
      linears.flatMap(({ clickTracking }) => clickTracking),
      note,
    );
    this.leave(note);
  }

  private fail(): void {
    const urls = [...this.item.wrappers, this.item.ad].flatMap(({ errors }) => errors);
    const calls = this.filled(urls, { ERRORCODE: '405' });
    this.say({ what: 'error', name: 'error', code: 405, note: 'The player fails.', calls });
    this.ended = 'failed';
  }

  private ignore(name: string, note: string): void {
    this.say({ what: 'ignored', name, note, calls: [] });
  }

  private event(name: string, urls: readonly VastUrl[], note?: string): void {
    this.say({ what: 'event', name, ...(note ? { note } : {}), calls: this.filled(urls) });
  }

  private say(line: Omit<PlayLine, 'at' | 'ad' | 'playhead'>): void {
    this.lines.push({ at: this.now, ad: this.given.number, playhead: this.playhead, ...line });
  }

  private tracked(event: string): VastUrl[] {
    const names = trackedAs.get(event) ?? [event];
    return this.linears.flatMap(({ trackers }) => trackers.filter((one) => names.includes(one.event)));
  }

  private filled(urls: readonly VastUrl[], more: MacroValues = {}): string[] {
    const { options, number, count, file } = this.given;
    const time = clock(this.playhead);
    const values: MacroValues = {
      ADPLAYHEAD: time,
      MEDIAPLAYHEAD: time,
      CONTENTPLAYHEAD: clock(0),
      TIMESTAMP: new Date(options.startsAt + this.now).toISOString(),
      ASSETURI: file.url,
      MEDIAMIME: file.type,
      PODSEQUENCE: String(number),
      ADCOUNT: String(count),
      VASTVERSIONS: vastVersions.join(','),
      PLAYERSTATE: this.isAway ? 'background' : 'playing',
      ...(this.item.ad.servingId ? { ADSERVINGID: this.item.ad.servingId } : {}),
      ...(this.item.ad.universalId ? { UNIVERSALADID: this.item.ad.universalId } : {}),
      ...more,
    };
    // Each call has digits of its own, and the same ones each time that the break is gone through.
    const digits = (at: number) =>
      String((options.seed + this.lines.length * 97 + at) % 100_000_000).padStart(8, '0');
    return urls.map(({ url }, at) => fillMacros(url, { ...values, CACHEBUSTING: digits(at) }));
  }
}

/** `HH:MM:SS.mmm`. */
function clock(ms: number): string {
  return new Date(ms).toISOString().slice(11, 23);
}
