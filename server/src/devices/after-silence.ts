/**
 * Calls back after so long, once what waits in the sockets has been read: a thread that was held up for as long is no silence of a device. Returns what
 * stops it.
 */
export function afterSilence(ms: number, done: () => void): () => void {
  let reading: NodeJS.Immediate | undefined
  const timer = setTimeout(() => {
    reading = setImmediate(done)
  }, ms)
  return () => {
    clearTimeout(timer)
    if (reading) clearImmediate(reading)
  }
}
