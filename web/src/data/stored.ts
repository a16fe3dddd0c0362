const PREFIX = 'bold-ballast.'
const SEAT_KEY = `${PREFIX}seat`
const NAMES_KEY = `${PREFIX}names`
/** What belongs to the browser and not to whoever is at it. */
const OF_BROWSER = new Set([`${PREFIX}preferences`, SEAT_KEY, NAMES_KEY])

/** Whose seat is taken on this browser; null as long as nobody signs in. */
export interface SeatHere {
  readonly personId: string
  readonly name: string
}

function parse<Value>(text: string | null, fallback: Value): Value {
  return text === null ? fallback : (JSON.parse(text) as Value)
}

function readSeat(): SeatHere | null {
  try {
    return parse<SeatHere | null>(localStorage.getItem(SEAT_KEY), null)
  } catch {
    return null
  }
}

/** Who is at this page from its start to its end: another one begins with a page of his own. */
export const SEAT = readSeat()

const keyOf = (key: string, personId: string | null): string =>
  OF_BROWSER.has(key) || personId === null ? key : `${PREFIX}${personId}.${key.slice(PREFIX.length)}`

/** Where a key of ours stands for whoever is at this page. */
export const storedKey = (key: string): string => keyOf(key, SEAT?.personId ?? null)

/** What this browser keeps; a browser that keeps nothing gives the fallback. */
export function readStored<Value>(key: string, fallback: Value): Value {
  try {
    return parse(localStorage.getItem(storedKey(key)), fallback)
  } catch {
    return fallback
  }
}

export function writeStored(key: string, value: unknown): void {
  try {
    if (value === undefined) localStorage.removeItem(storedKey(key))
    else localStorage.setItem(storedKey(key), JSON.stringify(value))
  } catch {
    // A browser that refuses to store keeps the draft in the page alone.
  }
}

/** What a key holds for each who was ever at this browser; `null` stands for the time before anybody signed in. */
export function storedOfOthers<Value>(key: string): { readonly personId: string | null; readonly value: Value }[] {
  const tail = key.slice(PREFIX.length)
  const pattern = new RegExp(`^${PREFIX.replace('.', '\\.')}(?:([0-9a-f-]{36})\\.)?${tail.replaceAll('.', '\\.')}$`)
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').flatMap((each) => {
      const found = pattern.exec(each)
      const personId = found?.[1] ?? null
      if (!found || personId === (SEAT?.personId ?? null)) return []
      return [{ personId, value: JSON.parse(localStorage.getItem(each) ?? 'null') as Value }]
    })
  } catch {
    return []
  }
}

/** Moves what was kept under a key before anybody signed in to whoever is at this page. */
export function takeOverOpen<Value>(key: string, join: (mine: Value | null, before: Value) => Value): void {
  const before = localStorage.getItem(key)
  if (SEAT === null || before === null) return
  writeStored(key, join(readStored<Value | null>(key, null), JSON.parse(before) as Value))
  localStorage.removeItem(key)
}

/** What those are called who were ever at this browser, by their ids. */
export const namesHere = (): Readonly<Record<string, string>> => readStored(NAMES_KEY, {})

/** Everything that was kept before anybody signed in becomes this person's: the first owner typed it himself. */
function adoptOpen(personId: string): void {
  const open = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').filter(
    (key) => key.startsWith(PREFIX) && !OF_BROWSER.has(key) && !/^bold-ballast\.[0-9a-f-]{36}\./.test(key),
  )
  for (const key of open) {
    localStorage.setItem(keyOf(key, personId), localStorage.getItem(key) ?? '')
    localStorage.removeItem(key)
  }
}

/** Another person sits down, or none; the page begins anew, so that nothing of the one before is left in it. */
export function sitDown(seat: SeatHere | null, { adopts = false, at }: { readonly adopts?: boolean; readonly at?: string } = {}): void {
  try {
    if (adopts && seat) adoptOpen(seat.personId)
    if (seat) {
      localStorage.setItem(SEAT_KEY, JSON.stringify(seat))
      localStorage.setItem(NAMES_KEY, JSON.stringify({ ...namesHere(), [seat.personId]: seat.name }))
    } else localStorage.removeItem(SEAT_KEY)
  } catch {
    // A browser that refuses to store forgets who sits here with the page.
  }
  if (at === undefined) window.location.reload()
  else window.location.assign(at)
}

/** Whether somebody sat down or got up in another tab. */
export const isSeatChange = (event: StorageEvent): boolean => event.key === SEAT_KEY
