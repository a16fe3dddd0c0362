import type { Express } from 'express'

interface Layer {
  readonly route?: { readonly path: string; readonly methods: object }
  readonly handle?: { readonly stack?: readonly Layer[] }
}

const routesIn = (stack: readonly Layer[]): string[] =>
  stack.flatMap(({ route, handle }) => (route ? Object.keys(route.methods).map((method) => `${method} ${route.path}`) : routesIn(handle?.stack ?? [])))

/** Method and path of every address an application answers, as Express itself holds them, in the order they are asked. */
export const routesOf = (app: Express): string[] => routesIn((app as unknown as { router: { stack: readonly Layer[] } }).router.stack)
