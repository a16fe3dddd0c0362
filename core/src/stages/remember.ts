import type { Car } from './car.ts'

/** The same question about a stage (or weighing) of one car is worked out once: the answers are kept by the car itself and end with it. */
export function rememberByIndex<Answer>(work: (car: Car, index: number) => Answer): (car: Car, index: number) => Answer {
  return (car, index) => {
    const known = (car.answers.get(work) ?? new Map<number, unknown>()) as Map<number, Answer>
    car.answers.set(work, known)
    const before = known.get(index)
    if (before !== undefined || known.has(index)) return before as Answer
    const answer = work(car, index)
    known.set(index, answer)
    return answer
  }
}
