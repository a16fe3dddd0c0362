import { noiseFrom, serveStandIn } from './stand-in.ts'

// A simulated weather station as a process of its own: node weather.js PORT [NAME]. It reads the air and the wind twice a second; the Devices page says what they are.

const READINGS_MS = 500

interface Air {
  readonly pressurePa: number
  readonly temperatureK: number
  readonly relativeHumidity: number
  readonly windMps: number | null
}

const noise = noiseFrom(20_261_130)
let air: Air = { pressurePa: 100_400, temperatureK: 289.4, relativeHumidity: 0.62, windMps: 1.4 }

const shown = (value: number, decimals: number) => Number(value.toFixed(decimals))
const reading = () => ({
  type: 'air',
  pressurePa: shown(air.pressurePa + 4 * noise(), 0),
  temperatureK: shown(air.temperatureK + 0.03 * noise(), 2),
  relativeHumidity: shown(Math.min(1, Math.max(0, air.relativeHumidity + 0.002 * noise())), 3),
  windMps: air.windMps === null ? null : shown(Math.max(0, air.windMps + 0.2 * noise()), 1),
})

const device = serveStandIn({
  hello: (name, serial) => ({ type: 'hello', protocol: 1, device: 'weather', name, serial, isSimulated: true }),
  name: 'Simulated weather station',
  greet: reading,
  obey: (command) => {
    if (command.type !== 'weather') return 'This weather station does not know that command.'
    air = command.air as Air
    device.say(reading())
    return null
  },
})

setInterval(() => device.say(reading()), READINGS_MS)
