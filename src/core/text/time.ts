/** A time that is left, in words: `42 min`, `3 h`, `2 days`. */
export function timeLeft(from: string, now: string): string | null {
  const seconds = (Date.parse(from) - Date.parse(now)) / 1000;
  if (!(seconds > 0)) return null;
  if (seconds < 5400) return `${Math.ceil(seconds / 60)} min`;
  if (seconds < 129_600) return `${Math.ceil(seconds / 3600)} h`;
  return `${Math.ceil(seconds / 86_400)} days`;
}
