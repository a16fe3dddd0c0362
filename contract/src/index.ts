export * from './answers.ts'
export * from './build-file.ts'
export * from './log.ts'
export * from './resources.ts'
