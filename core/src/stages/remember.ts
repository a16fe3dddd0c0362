import type { Car } from './car.ts'

/** The same question about a stage (or weighing) of the same car is worked out once: a car is made from records and never changes. */
export function rememberByIndex<Answer>(work: (car: Car, index: number) => Answer): (car: Car, index: number) => Answer {
  const answers = new WeakMap<Car, Map<number, Answer>>()
  return (car, index) => {
    const known = answers.get(car) ?? new Map<number, Answer>()
    answers.set(car, known)
    if (!known.has(index)) known.set(index, work(car, index))
    return known.get(index) as Answer
  }
}
