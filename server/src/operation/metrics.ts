import http from 'node:http'
import type { Knex } from 'knex'
import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'
import type { LiveHub } from '../live/hub.ts'
import type { WorkPool } from '../workers/pool.ts'
import { listen } from './listen.ts'
import type { Watched } from './request-watch.ts'

interface MetricsParts {
  readonly knex: Knex
  readonly pool: WorkPool
  readonly live: LiveHub
  /** Seconds since the last copy that was checked; undefined: there is none, or others keep them. */
  readonly copyAgeS: () => Promise<number | undefined>
}

/** As much of the driver's pool as is told. */
interface ConnectionPool {
  numUsed(): number
  numFree(): number
  numPendingAcquires(): number
}

const BUCKETS_S = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30]

/** What a running server counts, as the text that Prometheus reads. */
export class Metrics {
  readonly registry = new Registry()
  private readonly times: Histogram
  private readonly refusals: Counter

  constructor(parts: MetricsParts) {
    const registers = [this.registry]
    collectDefaultMetrics({ register: this.registry, prefix: 'bold_ballast_' })
    // Gauges under the names of counters, which the reader of the format objects to.
    for (const what of ['handles', 'requests', 'resources']) this.registry.removeSingleMetric(`bold_ballast_nodejs_active_${what}_total`)
    const labelNames = ['method', 'route', 'status']
    this.times = new Histogram({ name: 'bold_ballast_request_seconds', help: 'Time to the end of an answer.', labelNames, buckets: BUCKETS_S, registers })
    this.refusals = new Counter({ name: 'bold_ballast_refusals_total', help: 'Answers that refuse, by kind.', labelNames: ['code'], registers })
    this.gauges(parts)
  }

  private gauge(name: string, help: string, read: () => number | undefined | Promise<number | undefined>): void {
    const gauge: Gauge = new Gauge({
      name: `bold_ballast_${name}`,
      help,
      registers: [this.registry],
      collect: async () => {
        const value = await read()
        if (value === undefined) gauge.remove()
        else gauge.set(value)
      },
    })
  }

  private gauges({ knex, pool, live, copyAgeS }: MetricsParts): void {
    const connections = (knex.client as { pool: ConnectionPool }).pool
    this.gauge('connections_used', 'Connections to the database at work.', () => connections.numUsed())
    this.gauge('connections_free', 'Connections to the database at rest.', () => connections.numFree())
    this.gauge('connections_awaited', 'Requests that wait for a connection.', () => connections.numPendingAcquires())
    this.gauge('streams', 'Pages that hear live what others do.', () => live.streamCount)
    this.gauge('notify_lag_seconds', 'From telling the other servers to hearing it.', () => live.lagS())
    this.gauge('sums_waiting', 'Sums that wait for a thread.', () => pool.waiting)
    this.gauge('copy_age_seconds', 'Since the last copy that was checked.', copyAgeS)
  }

  readonly count = ({ method, route, status, seconds, code }: Watched): void => {
    this.times.observe({ method, route, status: `${Math.floor(status / 100)}xx` }, seconds)
    if (code !== null) this.refusals.inc({ code })
  }

  /** Serves them on loopback alone, on a port of their own; answers how to stop. */
  async serve(port: number): Promise<() => Promise<void>> {
    const server = http.createServer((request, response) => {
      if (request.url !== '/metrics') return void response.writeHead(404).end()
      this.registry
        .metrics()
        .then((text) => response.writeHead(200, { 'content-type': this.registry.contentType }).end(text))
        .catch(() => response.writeHead(503).end())
    })
    await listen(server, '127.0.0.1', port, 1)
    return () => new Promise((resolve) => server.close(() => resolve()))
  }
}
