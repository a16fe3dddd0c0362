import { appendFileSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'

/** Spoils a copy, or the bytes that it shares with others. */
export type Spoil = (at: { readonly copy: string; readonly bytes: string }) => void

/** Writes a manifest anew with something else in it. */
function rewrite(copy: string, change: (manifest: { tables: object; migrations: string[] }) => object): void {
  const file = path.join(copy, 'manifest.json')
  writeFileSync(file, JSON.stringify(change(JSON.parse(readFileSync(file, 'utf8')))))
}
const firstOf = (bytes: string) => path.join(bytes, readdirSync(bytes)[0] as string)

/** Faults planted in a copy by hand, and what is said of each. */
export const SPOILED: readonly (readonly [what: string, spoil: Spoil, sentence: RegExp])[] = [
  [
    'a byte more in the dump',
    ({ copy }) => appendFileSync(path.join(copy, 'database.dump'), 'x'),
    /^database\.dump is not the file that was written\. Nothing was changed\.$/,
  ],
  ['no dump', ({ copy }) => rmSync(path.join(copy, 'database.dump')), /^database\.dump is not the file/],
  ['no manifest', ({ copy }) => rmSync(path.join(copy, 'manifest.json')), /it has no manifest\.json\. Nothing was changed\.$/],
  ['half a manifest', ({ copy }) => writeFileSync(path.join(copy, 'manifest.json'), '{"format":'), /^manifest\.json is not the file/],
  ['a file of bytes less', ({ bytes }) => rmSync(firstOf(bytes)), /^bytes\/[0-9a-f]{64} is missing\. Nothing was changed\.$/],
  ['a file of bytes altered', ({ bytes }) => appendFileSync(firstOf(bytes), 'x'), /^bytes\/[0-9a-f]{64} is not the file/],
  ['other rows', ({ copy }) => appendFileSync(path.join(copy, 'byte-rows.ndjson.gz'), 'x'), /^byte-rows\.ndjson\.gz is not the file/],
  [
    'a row fewer than the manifest has',
    ({ copy }) => rewrite(copy, (manifest) => ({ ...manifest, tables: { ...manifest.tables, changes: { count: '9999', sum: '1' } } })),
    /^Restored, changes has other rows than were copied\.$/,
  ],
  [
    'one that a newer program took',
    ({ copy }) => rewrite(copy, (manifest) => ({ ...manifest, more: 1, migrations: [...manifest.migrations, '0099-later'] })),
    /^A newer Bold Ballast took this copy \(0099\)\. Restore it with that one\. Nothing was changed\.$/,
  ],
]
