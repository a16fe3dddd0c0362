import { type BoxProblem, CalculationError, highsSolver, type Placing, placeCircuits } from '@bold-ballast/core'
import { expose } from 'comlink'
import loadHighs from 'highs'
import wasm from 'highs/runtime?url'

export type PlacingReply = { readonly ok: true; readonly placing: Placing; readonly seconds: number } | { readonly ok: false; readonly message: string }

const loading = loadHighs({ locateFile: () => wasm }).then(highsSolver)

const work = {
  async place(problem: BoxProblem): Promise<PlacingReply> {
    const solve = await loading
    const from = performance.now()
    try {
      return { ok: true, placing: placeCircuits(problem, solve), seconds: (performance.now() - from) / 1000 }
    } catch (error) {
      if (error instanceof CalculationError) return { ok: false, message: error.message }
      throw error
    }
  },
}
export type PlacingWorker = typeof work

expose(work)
