import { deviceCommandSchema, standInSchema } from '@bold-ballast/contract'
import { z } from '@bold-ballast/core'
import { Router } from 'express'
import { AppError } from '../http/problem.ts'
import { read } from '../http/read.ts'
import type { DeviceService } from './service.ts'

const nothing = z.strictObject({})
const HEARTBEAT_MS = 10_000
const MOST_UNREAD_BYTES = 1_000_000

/** Devices: found, listed, asked, and streamed live as server-sent events. Of several servers one has them; null: another one. */
export function deviceRoutes(devices: DeviceService | null): Router {
  const router = Router()
  if (!devices) {
    router.use('/devices', () => {
      throw new AppError('rule-broken', 'The devices hang on another server of this Garage. Whoever runs it sends /api/devices there.')
    })
    return router
  }
  router.get('/devices', (_request, response) => {
    response.json(devices.list())
  })
  router.post('/devices/find', async (request, response) => {
    read(nothing, request.body)
    response.json(await devices.find())
  })
  router.post('/devices/stand-ins', async (request, response) => {
    response.status(201).json(await devices.startStandIn(read(standInSchema, request.body).kind))
  })
  router.delete('/devices/stand-ins/:id', (request, response) => {
    read(nothing, request.body)
    devices.stopStandIn(request.params.id)
    response.json({})
  })
  router.post('/devices/:id/commands', async (request, response) => {
    await devices.command(request.params.id as string, read(deviceCommandSchema, request.body))
    response.json({})
  })
  router.get('/devices/:id/stream', async (request, response) => {
    const stop = await devices.listen(request.params.id, (event) => {
      if (!response.headersSent) response.writeHead(200, { 'content-type': 'text/event-stream', connection: 'keep-alive' })
      response.write(`data: ${JSON.stringify(event)}\n\n`)
      // A page that reads nothing any more is let go; its own retry comes back.
      if (response.writableLength > MOST_UNREAD_BYTES) response.destroy()
    })
    if (response.closed) return stop()
    const end = () => response.end()
    devices.closed.signal.addEventListener('abort', end, { once: true })
    const beat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS)
    request.on('close', () => {
      clearInterval(beat)
      devices.closed.signal.removeEventListener('abort', end)
      stop()
    })
  })
  return router
}
