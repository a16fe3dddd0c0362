/** "1¾ turns up": quarters as a person counts them. */
export function turnWords(turns: number): string {
  if (turns === 0) return 'leave it'
  const size = Math.abs(turns)
  const whole = Math.floor(size)
  const quarter = ['', '¼', '½', '¾'][Math.round((size - whole) * 4) % 4]
  return `${whole > 0 || !quarter ? whole : ''}${quarter} ${size > 1 ? 'turns' : 'turn'} ${turns > 0 ? 'up' : 'down'}`
}
