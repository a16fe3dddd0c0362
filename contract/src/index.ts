export * from './answers.ts'
export * from './resources.ts'
