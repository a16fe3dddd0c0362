/** What a logger says of itself. */
export interface LoggerHealth {
  /** Its own clock, ms since 1970. */
  readonly clockMs: number
  readonly hasPosition: boolean
  /** Share of its storage that is free. */
  readonly freeShare: number
  readonly voltageV: number
  readonly isRecording: boolean
}

/** A clock that is further off puts a log into the wrong session (common practice, no source). */
const CLOCK_S = 120
const LEAST_FREE = 0.05
const LEAST_V = 11.8

/**
 * What is wrong with a logger before the car goes out, the worst first; empty where it is ready.
 * @example loggerWarnings({ clockMs: 0, hasPosition: true, freeShare: 0.5, voltageV: 13.8, isRecording: false }, 0) // ['It is not recording: this session would be lost. Start it before the car goes out.']
 */
export function loggerWarnings({ clockMs, hasPosition, freeShare, voltageV, isRecording }: LoggerHealth, nowMs: number): readonly string[] {
  const offS = Math.abs(nowMs - clockMs) / 1000
  const off = offS > 86_400 ? `${Math.round(offS / 86_400)} days` : offS > 3600 ? `${Math.round(offS / 3600)} h` : `${Math.round(offS / 60)} min`
  return [
    ...(isRecording ? [] : ['It is not recording: this session would be lost. Start it before the car goes out.']),
    ...(hasPosition ? [] : ['It has no position yet: laps and places would be missing. Wait under the open sky.']),
    ...(freeShare < LEAST_FREE ? [`Its storage is ${Math.round(100 * (1 - freeShare))} % full: read it back and empty it.`] : []),
    ...(voltageV < LEAST_V ? [`It has ${voltageV.toFixed(1)} V: it may go out under the starter. Look at its supply.`] : []),
    ...(offS > CLOCK_S ? [`Its clock is ${off} off: set it, or its log lands in the wrong session.`] : []),
  ]
}
