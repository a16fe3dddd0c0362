import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { buildFileJsonSchema } from '../contract/src/index.ts'

// npm run schema: writes the published schema of the build file; a test compares it with the one in use.
writeFileSync(fileURLToPath(new URL('../docs/build-format.schema.json', import.meta.url)), `${JSON.stringify(buildFileJsonSchema(), null, 2)}\n`)
