// A server for the interface tests, with its database, its port and its ten device ports given; ends with the process that started it.
import path from 'node:path'
import { root } from './install.mjs'

const { startServer } = await import('../server/dist/main.js')
const { address } = await startServer({
  databaseUrl: process.env.DATABASE_URL,
  port: Number(process.env.PORT),
  webRoot: path.join(root, 'web', 'dist'),
  demoRoot: path.join(root, 'demo'),
  copies: process.env.COPIES_DIR ? { folder: process.env.COPIES_DIR, script: path.join(root, 'scripts', 'backup.mjs') } : undefined,
  devicePorts: { first: Number(process.env.DEVICE_PORT), last: Number(process.env.DEVICE_PORT) + 9 },
})
process.stdout.write(`ready ${address}\n`)
