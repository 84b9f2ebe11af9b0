import { expose } from 'comlink'
import loadHighs from 'highs'
import wasm from 'highs/runtime?url'
import { solveBlend, type BlendAnswer, type BlendQuestion } from '#core/blends'
import { InputError } from '#core/errors'

/** The solver is a megabyte and is fetched when somebody asks for it first. */
let solver: ReturnType<typeof loadHighs> | undefined

const blender = {
  /** Refusals come as words: an error loses its kind on the way. */
  async solve(question: BlendQuestion): Promise<BlendAnswer | { problem: string; field: string }> {
    solver ??= loadHighs({ locateFile: () => wasm })
    try {
      return solveBlend(question, await solver)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return { problem: error.problems[0]!.message, field: error.problems[0]!.field }
    }
  },
}

export type Blender = typeof blender

expose(blender)
