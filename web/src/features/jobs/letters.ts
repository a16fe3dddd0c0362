/**
 * What a job is called in the drawing: A, B ... Z, AA, AB.
 */
export const letterOf = (at: number): string => (at < 26 ? String.fromCharCode(65 + at) : `${letterOf(Math.floor(at / 26) - 1)}${letterOf(at % 26)}`)
