import type { CodePlace } from '../facts/evidence.js';
import { isCallOf, lastPart, type NamedCall } from './named-calls.js';
import type { SourceCall, SourceReading } from './source-reading.js';
import { surroundings } from './surroundings.js';

/** What limits a wait, by the name of the function that it is passed to. */
const limits = /race|timeout|limit|within|deadline/i;

/** Whether a promise is waited for, and whether something around it bounds the wait. */
export function waitingFor(text: string, call: SourceCall, reading: SourceReading): CodePlace['waits'] {
  const { start, end } = call;
  const around = surroundings(reading);
  const inside = around.calls(call).filter((one) => one.start < start || end < one.end);
  if (inside.some(({ name }) => limits.test(name))) return 'limited';
  const together = inside.filter(({ name }) => /(^|\.)(all|allSettled)$/.test(name));
  if (![call, ...together].some((one) => isAwaited(text, one))) return undefined;
  return around.methods(call).some(({ name }) => limits.test(name)) ? 'limited' : 'open';
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

/** The calls of a file that start an SDK or ask for consent. */
export interface GateCall {
  action: 'start' | 'consent';
  call: SourceCall;
}

/** How many of them are followed; real files have a few. */
const maxGates = 100;

export function gateCalls(reading: SourceReading, named: readonly NamedCall[]): GateCall[] {
  const { ending } = surroundings(reading);
  const gates = named.flatMap((one) => {
    const { action } = one;
    if (action !== 'start' && action !== 'consent') return [];
    const calls = ending.get(lastPart(one.call)) ?? [];
    return calls.filter((call) => isCallOf(call, one)).map((call) => ({ action, call }));
  });
  return gates.slice(0, maxGates);
}

/** The gates whose closures contain a call: it runs when they are done. */
export function followed(
  reading: SourceReading,
  call: SourceCall,
  gates: readonly GateCall[],
): { follows?: GateCall['action'][] } {
  if (gates.length === 0) return {};
  const { start } = call;
  const around = surroundings(reading)
    .calls(call)
    .filter((one) => one.start < start);
  const later = around.filter(({ name }) => whenDone.test(name));
  const isBefore = ({ call: gate }: GateCall) =>
    around.includes(gate) || later.some((one) => one.start <= gate.start && gate.end < start);
  const follows = gates.filter(isBefore).map(({ action }) => action);
  return follows.length > 0 ? { follows: [...new Set(follows)] } : {};
}
