import type { Knex } from 'knex';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { RequestHandler } from 'express';

interface Sources {
  knex: Knex;
  /** Open windows at this server. */
  windows: () => number;
  /** Rows of networks in memory. */
  rows: () => number;
}

/** What operators watch, in the open text format for metrics. */
export class Metrics {
  private readonly registry = new Registry();
  private readonly requests: Histogram<'call' | 'status'>;

  constructor({ knex, windows, rows }: Sources) {
    const registers = [this.registry];
    collectDefaultMetrics({ register: this.registry });
    this.requests = new Histogram({
      ...{ name: 'visograph_request_seconds', help: 'Time until a request was answered', registers },
      labelNames: ['call', 'status'],
      buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10, 60],
    });
    const sampled = (name: string, help: string, read: () => number): void =>
      void new Gauge({
        ...{ name, help, registers },
        collect() {
          this.set(read());
        },
      });
    sampled('visograph_windows', 'Open windows at this server', windows);
    sampled('visograph_rows_in_memory', 'Rows of networks kept in memory', rows);
    const jobs = new Gauge({
      ...{ name: 'visograph_jobs', help: 'Jobs of the last hour on this database', registers },
      labelNames: ['lane', 'state'],
      async collect() {
        const { rows } = await knex.raw<{ rows: { lane: string; state: string; count: number }[] }>(
          'SELECT lane, state, count(*) AS count FROM job GROUP BY lane, state',
        );
        jobs.reset();
        for (const { lane, state, count } of rows) jobs.set({ lane, state }, count);
      },
    });
  }

  /** Measures each request by the call of the contract that it is, so that ids make no series of their own. */
  measure(call: string): RequestHandler {
    return (_request, response, next) => {
      const end = this.requests.startTimer({ call });
      response.once('finish', () => end({ status: String(response.statusCode) }));
      next();
    };
  }

  /** Answers `/metrics` at an address of its own, which need not be reachable for people. */
  async serve(host: string, port: number): Promise<{ url: string; close: () => Promise<void> }> {
    const http: Server = createServer((request, response) => {
      if (request.url !== '/metrics') return void response.writeHead(404).end();
      this.registry.metrics().then(
        (text) => response.writeHead(200, { 'Content-Type': this.registry.contentType }).end(text),
        () => response.writeHead(503).end(),
      );
    });
    await new Promise<void>((resolve, reject) => {
      http.once('error', reject);
      http.listen(port, host, resolve);
    });
    return {
      url: `http://${host}:${(http.address() as AddressInfo).port}/metrics`,
      close: () =>
        new Promise((resolve) => {
          http.close(() => resolve());
          http.closeAllConnections();
        }),
    };
  }
}
