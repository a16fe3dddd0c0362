import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** Calls that only declare: where nothing needs what they declare, it is left out of a page's scripts. */
const DECLARING = [
  'defineAdvice',
  'defineCalculation',
  'defineMeasurement',
  'defineMetric',
  'defineRecord',
  'rememberByIndex',
  'ofStage',
  'workOfEach',
  'provedByTest',
]

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 2000, rolldownOptions: { treeshake: { manualPureFunctions: DECLARING } } },
  server: { proxy: { '/api': 'http://127.0.0.1:4600' } },
})
