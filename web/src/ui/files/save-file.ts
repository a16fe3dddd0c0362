/** A name for a file on any machine, with the day: "Gannet, stage 4" as "gannet-stage-4-2026-11-28.svg". */
export const fileName = (name: string, ending: string, day: string): string => `${name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${day}.${ending}`

/** Saves a text of the page as a file. */
export function saveFile(name: string, ending: string, type: string, text: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = fileName(name, ending, new Date().toISOString().slice(0, 10))
  link.click()
  URL.revokeObjectURL(link.href)
}
