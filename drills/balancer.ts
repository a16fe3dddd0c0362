import http from 'node:http'

/** As a proxy with one public address: it sends each request to the next server, and one that does not answer is passed over. */
export class Balancer {
  private readonly ports: readonly number[]
  private readonly publicHost: string
  private readonly server: http.Server
  private next = 0
  readonly served = new Map<number, number>()

  constructor(ports: readonly number[], publicHost: string) {
    this.ports = ports
    this.publicHost = publicHost
    this.server = http.createServer((request, response) => {
      const chunks: Buffer[] = []
      request.on('data', (chunk: Buffer) => chunks.push(chunk))
      request.on('end', () => this.pass(request, response, Buffer.concat(chunks), this.ports.length))
    })
  }

  private pass(request: http.IncomingMessage, response: http.ServerResponse, body: Buffer, triesLeft: number): void {
    const port = this.ports[this.next++ % this.ports.length] as number
    const headers = { ...request.headers, host: this.publicHost, 'x-forwarded-for': '203.0.113.7', 'content-length': String(body.length) }
    const sent = http.request({ host: '127.0.0.1', port, path: request.url, method: request.method, headers, agent: false }, (answer) => {
      this.served.set(port, (this.served.get(port) ?? 0) + 1)
      response.writeHead(answer.statusCode ?? 502, answer.headers)
      answer.pipe(response)
      answer.once('error', () => response.destroy())
    })
    sent.once('error', () => {
      if (response.headersSent) response.destroy()
      else if (triesLeft > 1) this.pass(request, response, body, triesLeft - 1)
      else response.writeHead(502).end()
    })
    sent.end(body)
  }

  listen(): Promise<number> {
    return new Promise((resolve) => this.server.listen(0, '127.0.0.1', () => resolve((this.server.address() as { port: number }).port)))
  }

  close(): Promise<void> {
    this.server.closeAllConnections()
    return new Promise((resolve) => this.server.close(() => resolve()))
  }
}
