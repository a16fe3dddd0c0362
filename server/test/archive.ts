import yazl from 'yazl'

/** An archive in memory; `names` may be anything, also what a well-made archive never holds. */
export async function archive(entries: Record<string, string | Buffer>, options: { compress?: boolean } = {}): Promise<Buffer> {
  const zip = new yazl.ZipFile()
  for (const [name, content] of Object.entries(entries)) zip.addBuffer(Buffer.from(content as string), name, options)
  zip.end()
  const chunks: Buffer[] = []
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer)
  return Buffer.concat(chunks)
}
