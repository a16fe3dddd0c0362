/** Letters of other alphabets that look like a Latin one; the confusables of Unicode TR39 that a keyboard can type, from memory. */
const LOOKS_LIKE: Readonly<Record<string, string>> = Object.fromEntries(
  [
    ['аɑα', 'a'],
    ['ьв', 'b'],
    ['сϲ', 'c'],
    ['ԁ', 'd'],
    ['еєҽε', 'e'],
    ['ɡ', 'g'],
    ['һн', 'h'],
    ['іıι', 'i'],
    ['јϳ', 'j'],
    ['кκ', 'k'],
    ['ӏ|', 'l'],
    ['м', 'm'],
    ['п', 'n'],
    ['оοσ0', 'o'],
    ['рρ', 'p'],
    ['ԛ', 'q'],
    ['г', 'r'],
    ['ѕ', 's'],
    ['тτ', 't'],
    ['υ', 'u'],
    ['νѵ', 'v'],
    ['ԝω', 'w'],
    ['хχ', 'x'],
    ['уγ', 'y'],
    ['1', 'l'],
  ].flatMap(([letters = '', latin = '']) => [...letters].map((letter) => [letter, latin])),
)

/** A name as it is compared: compatible forms as one, no case, single spaces. */
export const folded = (text: string): string => text.normalize('NFKC').toLowerCase().replaceAll(/\s+/gu, ' ').trim()

/** A name by its looks: what cannot be told apart on a screen has one shape. */
export const shapeOf = (name: string): string => [...folded(name)].map((letter) => LOOKS_LIKE[letter] ?? letter).join('')

/** Names that old lines of the log bear without anybody having typed them. */
const TAKEN = new Set(['demo', 'nobody named', 'large'].map(shapeOf))

/** Whether a name may be a person's. */
export const isFreeName = (name: string): boolean => shapeOf(name) !== '' && !TAKEN.has(shapeOf(name)) && !/\p{Cc}/u.test(name)
