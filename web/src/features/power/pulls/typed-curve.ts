/** Points that were typed, a line each, as the file a dyno would have written, so that they are read, checked and stored the same way. */
export function typedCurveFile(text: string, units: { readonly power: string; readonly torque: string }): File {
  const rows = text
    .split('\n')
    .map((line) => line.trim().split(/[\s;]+/))
    .filter((cells) => cells[0] !== '')
  const heads = ['rpm', `power ${units.power}`, `torque ${units.torque}`].slice(0, Math.max(2, Math.min(3, rows[0]?.length ?? 2)))
  const lines = [heads, ...rows].map((cells) => cells.join(';'))
  return new File([`${lines.join('\r\n')}\r\n`], 'typed curve', { type: 'text/csv' })
}

/** Points that were read off a picture, in SI, as such a file. */
export function pointsFile(points: readonly { readonly speedRpm: number; readonly value: number }[], of: 'power' | 'torque', name: string): File {
  const head = `rpm;${of === 'power' ? 'power W' : 'torque N·m'}`
  const rows = [...points].sort((a, b) => a.speedRpm - b.speedRpm).map(({ speedRpm, value }) => `${speedRpm.toFixed(1)};${value.toFixed(2)}`)
  return new File([`${[head, ...rows].join('\r\n')}\r\n`], name, { type: 'text/csv' })
}
