/** What a look finds, as soon as it does; throws when it does not come in time. */
export const until = async <Value>(read: () => Value | undefined | false | Promise<Value | undefined | false>, ms = 12_000): Promise<Value> => {
  const end = Date.now() + ms
  while (Date.now() < end) {
    const found = await read()
    if (found !== undefined && found !== false) return found
    await new Promise((resolve) => setTimeout(resolve, 30))
  }
  throw new Error('it did not come')
}
