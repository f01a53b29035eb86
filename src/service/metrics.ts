import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { RequestHandler } from 'express';
import type { ServiceContext } from './context.js';

/** Counts answers by status, and prints the counts with the size of the process (Prometheus text format 0.0.4). */
export class Metrics {
  readonly #counts = new Map<string, number>();
  readonly #delay = monitorEventLoopDelay({ resolution: 10 });

  constructor(private readonly context: ServiceContext) {
    this.#delay.enable();
  }

  count(): RequestHandler {
    return (_request, response, next) => {
      response.on('finish', () => {
        const key = `${Math.floor(response.statusCode / 100)}xx`;
        this.#counts.set(key, (this.#counts.get(key) ?? 0) + 1);
      });
      next();
    };
  }

  show(): RequestHandler {
    return (_request, response) => {
      // Under node --expose-gc, what is measured is what is still needed.
      globalThis.gc?.();
      const memory = process.memoryUsage();
      const lines = [...this.#counts].map(
        ([status, count]) => `syndexa_http_responses_total{status="${status}"} ${count}`,
      );
      const gauges = [
        `syndexa_resident_bytes ${memory.rss}`,
        `syndexa_heap_bytes ${memory.heapUsed}`,
        `syndexa_worker_bytes ${this.context.runner.memory}`,
        ...[0.5, 0.99].map(
          (quantile) =>
            `syndexa_event_loop_delay_seconds{quantile="${quantile}"} ${(this.#delay.percentile(quantile * 100) / 1e9).toFixed(4)}`,
        ),
        `syndexa_revision ${this.context.roster.revision()}`,
      ];
      response.type('text/plain; version=0.0.4').send([...lines, ...gauges, ''].join('\n'));
    };
  }
}
