/** An oval of 60 m radius and 150 m straights as a logger writes it, twice round. */
export function ovalGpx(): string {
  const points: string[] = []
  const whole = 2 * 150 + 2 * Math.PI * 60
  for (let s = 0; s < 2 * whole; s += 4) {
    const m = s % whole
    const half = 150 + Math.PI * 60
    const [side, along] = [m < half ? 1 : -1, m % half]
    const turn = along > 150 ? (along - 150) / 60 : 0
    const x = along > 150 ? 75 + 60 * Math.sin(turn) : along - 75
    const y = along > 150 ? -60 * Math.cos(turn) : -60
    points.push(`<trkpt lat="${59 + (side * y) / 111_412}" lon="${18 + (side * x) / 57_478}"><ele>20</ele></trkpt>`)
  }
  return `<?xml version="1.0"?><gpx version="1.1" creator="a logger"><trk><trkseg>${points.join('')}</trkseg></trk></gpx>`
}
