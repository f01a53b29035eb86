const blocks = '▁▂▃▄▅▆▇█';

/**
 * Draws numbers as a line of small bars, from nothing to the largest of them.
 * @param most the most bars; of a longer list, neighbours share one, which shows their mean
 */
export function sparkline(values: readonly number[], most: number): string {
  const share = Math.max(1, Math.ceil(values.length / most));
  const means: number[] = [];
  for (let at = 0; at < values.length; at += share) {
    const part = values.slice(at, at + share);
    means.push(part.reduce((sum, value) => sum + value, 0) / part.length);
  }
  const largest = Math.max(...means, 0);
  return means
    .map((mean) => blocks[largest <= 0 ? 0 : Math.round((Math.max(mean, 0) / largest) * (blocks.length - 1))])
    .join('');
}
