import { type BallastAnswer, type BallastInput, CalculationError, highsSolver, planBallast } from '@bold-ballast/core'
import { expose } from 'comlink'
import loadHighs from 'highs'
import wasm from 'highs/runtime?url'

export type BallastReply = { readonly ok: true; readonly answer: BallastAnswer; readonly seconds: number } | { readonly ok: false; readonly message: string }

const loading = loadHighs({ locateFile: () => wasm }).then(highsSolver)

const work = {
  async plan(input: BallastInput): Promise<BallastReply> {
    const solve = await loading
    const from = performance.now()
    try {
      return { ok: true, answer: planBallast(input, solve), seconds: (performance.now() - from) / 1000 }
    } catch (error) {
      if (error instanceof CalculationError) return { ok: false, message: error.message }
      throw error
    }
  },
}
export type BallastWorker = typeof work

expose(work)
