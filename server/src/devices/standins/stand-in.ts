import net from 'node:net'

/** Normal noise from a seeded generator (mulberry32 and Box and Muller), so that two runs read alike. */
export function noiseFrom(seed: number): () => number {
  let state = seed
  const random = () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

interface StandIn {
  readonly name: string
  readonly hello: (name: string, serial: string) => object
  /** What is said once to each that connects, after the hello. */
  readonly greet?: () => object
  /** Does a command; the sentence that refuses it, or null. */
  readonly obey: (command: Record<string, unknown>) => string | null
}

/**
 * A simulated device on the loopback port of the command line (node DEVICE.js PORT [NAME]): greets whoever connects, takes commands a line each, and says
 * to all of them. It ends with whoever started it.
 */
export function serveStandIn({ name: ownName, hello, greet, obey }: StandIn): { say: (message: object) => void } {
  const port = Number(process.argv[2])
  const name = process.argv[3] ?? ownName
  const sockets = new Set<net.Socket>()
  const tell = (socket: net.Socket, message: object) => socket.write(`${JSON.stringify(message)}\n`)
  const take = (socket: net.Socket, line: string) => {
    let command: Record<string, unknown>
    try {
      command = JSON.parse(line) as Record<string, unknown>
    } catch {
      return tell(socket, { type: 'refused', id: 0, message: 'That line is not JSON.' })
    }
    const id = Number.isInteger(command.id) ? (command.id as number) : 0
    const refusal = obey(command)
    return tell(socket, refusal === null ? { type: 'done', id } : { type: 'refused', id, message: refusal })
  }
  const server = net.createServer((socket) => {
    sockets.add(socket)
    tell(socket, hello(name, `SIM-${port}`))
    if (greet) tell(socket, greet())
    let rest = ''
    socket.setEncoding('utf8')
    socket.on('data', (text: string) => {
      const lines = (rest + text).split('\n')
      rest = lines.pop() ?? ''
      if (rest.length > 4096) socket.destroy()
      for (const line of lines) if (line.trim() !== '') take(socket, line)
    })
    socket.on('error', () => {})
    socket.on('close', () => sockets.delete(socket))
  })
  server.on('error', (error: NodeJS.ErrnoException) => {
    process.stderr.write(`${error.code === 'EADDRINUSE' ? `Port ${port} is taken.` : error.message}\n`)
    process.exit(1)
  })
  server.listen(port, '127.0.0.1', () => process.stdout.write(`ready ${port}\n`))
  process.stdin.resume().on('end', () => process.exit(0))
  return {
    say: (message) => {
      for (const socket of sockets) tell(socket, message)
    },
  }
}
