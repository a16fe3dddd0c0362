import type http from 'node:http'

/** How long requests that run may still take once the server is told to stop. */
const DRAIN_MS = 10_000

/** Listens on the port, or the next free one of so many; answers which. */
export function listen(server: http.Server, host: string, port: number, tries: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const onError = (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && tries > 1) resolve(listen(server, host, port + 1, tries - 1))
      else if (error.code === 'EADDRINUSE') reject(new Error(`PORT ${port} is taken. Stop what uses it, or give another one.`))
      else reject(error)
    }
    server.once('error', onError).listen(port, host, () => {
      server.off('error', onError)
      resolve((server.address() as { port: number }).port)
    })
  })
}

/** Takes no more requests, lets those that run end, and cuts what is left after a while. */
export async function drain(server: http.Server): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve))
  server.closeIdleConnections()
  const cut = setTimeout(() => server.closeAllConnections(), DRAIN_MS)
  await closed
  clearTimeout(cut)
}
