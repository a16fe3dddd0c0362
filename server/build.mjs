import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

// Own workspaces are TypeScript and go into the bundle; everything from the registry stays outside.
const ownWorkspace = /^@bold-ballast\//
await build({
  entryPoints: [
    'main.ts',
    'copies/index.ts',
    'workers/worker.ts',
    'devices/standins/scales.ts',
    'devices/standins/dyno.ts',
    'devices/standins/logger.ts',
    'devices/standins/weather.ts',
  ].map((entry) => fileURLToPath(new URL(`./src/${entry}`, import.meta.url))),
  outbase: fileURLToPath(new URL('./src', import.meta.url)),
  outdir: fileURLToPath(new URL('./dist', import.meta.url)),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [
    {
      name: 'external-packages',
      setup(bundler) {
        bundler.onResolve({ filter: /^[^./]/ }, (found) =>
          found.kind === 'entry-point' || ownWorkspace.test(found.path) ? undefined : { path: found.path, external: true },
        )
      },
    },
  ],
})
