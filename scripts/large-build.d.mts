type Row = Record<string, unknown> & { id: string }

export function seeded(seed: number): () => number

/** See large-build.mjs. */
export function makeLargeBuild(options?: { name?: string; lineCount?: number; pullCount?: number; sampleCount?: number; partCount?: number }): {
  readonly file: {
    readonly format: string
    readonly formatVersion: number
    readonly build: Row
    readonly stages: Row[]
    readonly changes: Row[]
    readonly pulls: Row[]
  }
  readonly samples: Map<string, string>
}
