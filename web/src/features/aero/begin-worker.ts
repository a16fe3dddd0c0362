/** The thread on which runs are fitted and tests are planned. */
export const beginAeroWorker = () => new Worker(new URL('./aero.worker.ts', import.meta.url), { type: 'module' })
