/** What this browser keeps; a browser that keeps nothing gives the fallback. */
export function readStored<Value>(key: string, fallback: Value): Value {
  try {
    const text = localStorage.getItem(key)
    return text === null ? fallback : (JSON.parse(text) as Value)
  } catch {
    return fallback
  }
}

export function writeStored(key: string, value: unknown): void {
  try {
    if (value === undefined) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(value))
  } catch {
    // A browser that refuses to store keeps the draft in the page alone.
  }
}
