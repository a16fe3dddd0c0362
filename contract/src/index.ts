export * from './answers.ts'
export * from './build-file.ts'
export * from './resources.ts'
