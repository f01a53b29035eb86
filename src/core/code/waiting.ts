import type { CodePlace } from '../facts/evidence.js';
import { isCallOf, type NamedCall } from './named-calls.js';
import type { SourceCall, SourceReading } from './source-reading.js';

/** What bounds a wait, by the name of what it is handed to. */
const limits = /race|timeout|limit|within|deadline/i;

/** Whether a promise is waited for, and whether something around it bounds the wait. */
export function waitingFor(
  text: string,
  { start, end }: SourceCall,
  { calls, methods }: SourceReading,
): CodePlace['waits'] {
  const holds = (one: { start: number; end: number }) => one.start <= start && end <= one.end;
  const inside = calls.filter((one) => holds(one) && (one.start < start || end < one.end));
  if (inside.some(({ name }) => limits.test(name))) return 'limited';
  const around = methods.filter(holds).some(({ name }) => limits.test(name));
  const together = inside.filter(({ name }) => /(^|\.)(all|allSettled)$/.test(name));
  const awaited = [{ start, end }, ...together].some((one) => isAwaited(text, one));
  return awaited ? (around ? 'limited' : 'open') : undefined;
}

/** Whether the code goes on only when a call is done. */
export function isAwaited(text: string, { start, end }: { start: number; end: number }): boolean {
  return (
    /\bawait\s+(?:[\w$]+\.)*$/.test(text.slice(Math.max(0, start - 80), start)) ||
    /^\s*\.(?:then|finally)\b/.test(text.slice(end, end + 40))
  );
}

/** What runs the closure that it is given when the call before it is done. */
const whenDone =
  /(^|\.)(then|finally|whenComplete|ContinueWith|addOnCompleteListener|addOnSuccessListener|thenAccept|thenRun)$/;

/** The start-up and the question for consent in whose closures a call is: it runs when they are done. */
export function followed(
  { calls }: SourceReading,
  { start, end }: SourceCall,
  named: readonly NamedCall[],
): { follows?: ('start' | 'consent')[] } {
  const gates = named.flatMap((one) =>
    one.action === 'start' || one.action === 'consent' ? [{ ...one, action: one.action }] : [],
  );
  if (gates.length === 0) return {};
  const around = calls.filter((one) => one.start < start && end <= one.end);
  const follows = gates.flatMap((gate) => {
    const isGate = (one: SourceCall) => isCallOf(one, gate);
    const isAfter = around.some(
      (one) =>
        isGate(one) ||
        (whenDone.test(one.name) &&
          calls.some((inner) => isGate(inner) && one.start <= inner.start && inner.end < start)),
    );
    return isAfter ? [gate.action] : [];
  });
  return follows.length > 0 ? { follows: [...new Set(follows)] } : {};
}
