import type { TraceEvent, TraceEventName, Verdict } from '../facts/trace.js';
import type { Stage } from '../words/words.js';

/** A verdict in a few words: `test ad shown after 1.2 s`, `refused: it is paused`. */
export function verdictText({ is, after, test, text }: Verdict, stage: Stage): string {
  const ad = test === true ? 'test ad' : 'ad';
  const reason = text === undefined ? '' : `: ${lowerFirst(text.replace(/\.$/, ''))}`;
  switch (is) {
    case 'shown':
      return `${ad} shown after ${((after ?? 0) / 1_000).toFixed(1)} s${wrongStage(test, stage)}`;
    case 'delivered':
      return `${test === true ? 'test notification' : 'notification'} delivered${wrongStage(test, stage)}`;
    case 'refused':
      return `refused${reason}`;
    case 'no-ad':
      return 'no ad';
    case 'timed-out':
      return 'no answer in time';
    case 'failed':
      return `failed${reason}`;
    case 'never-shown':
      return 'loaded, and never shown';
    case 'never-requested':
      return `never requested${reason}`;
    case 'stopped':
      return `the app stops${reason}`;
    case 'cannot-tell':
      return `cannot tell${reason}`;
  }
}

function wrongStage(test: boolean | undefined, stage: Stage): string {
  if (test === true && stage === 'production') return ', in production';
  return test === false && stage === 'test' ? ', and it earns money' : '';
}

/** A sentence goes on after a colon; IDs and names keep their capitals. */
const lowerFirst = (text: string): string =>
  /^(?:A|An|Code|It|No|Nothing|The|There)\b/.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;

/** What an event is called, in front of people. */
const eventNames: Record<TraceEventName, string> = {
  launch: 'app launched',
  'consent-answered': 'consent answered',
  'tracking-answered': 'tracking answered',
  'screen-opened': 'screen opened',
  'screen-closed': 'screen closed',
  tap: 'tap',
  scroll: 'scrolled',
  skip: 'ad skipped',
  click: 'ad clicked',
  'ad-closed': 'ad closed',
  left: 'app left',
  returned: 'app back',
  rotated: 'device turned',
  stuck: 'user stuck',
  killed: 'app ended by the system',
  offline: 'connection lost',
  online: 'connection back',
  stopped: 'app stopped',
  'consent-asked': 'consent asked',
  'start-called': 'SDK start called',
  load: 'load',
  'not-ready': 'not ready',
  show: 'show',
  'show-failed': 'show failed',
  fallback: 'next network',
  released: 'ad released',
  kept: 'ad kept',
  'listener-kept': 'listener kept',
  refresh: 'refresh',
  started: 'SDK started',
  'start-failed': 'SDK not started',
  request: 'request',
  filled: 'ad arrived',
  'no-fill': 'no ad',
  refused: 'refused',
  failed: 'failed',
  'timed-out': 'no answer in time',
  capped: 'capped by the network',
  expired: 'ad expired',
  impression: 'ad seen',
  'first-quartile': 'a quarter played',
  midpoint: 'half played',
  'third-quartile': 'three quarters played',
  complete: 'played to the end',
  reward: 'reward granted',
  'row-bound': 'row in view',
  'row-reused': 'row used again',
  delivered: 'notification delivered',
  suspended: 'account suspended',
};

/** An event in a few words: `load (open)`, `refused: it is paused`. */
export function eventText({ what, because, text, screen, ad, row, test }: TraceEvent): string {
  const parts = [
    screen,
    ad === undefined ? undefined : `ad ${ad}${test === true ? ', a test ad' : ''}`,
    row === undefined ? undefined : `row ${row}`,
    because === undefined ? undefined : `on ${because}`,
  ].filter((part) => part !== undefined);
  const about = parts.length === 0 ? '' : ` (${parts.join(', ')})`;
  return `${eventNames[what]}${about}${text === undefined ? '' : `: ${text}`}`;
}
