/** The thread on which maps and runs of many finals are worked out. */
export const beginDriveWorker = () => new Worker(new URL('./drive.worker.ts', import.meta.url), { type: 'module' })
