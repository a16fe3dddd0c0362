import { JOBS, type JobName } from './jobs.ts'

/** The one entry of a thread of the pool. */
export default function work({ job, input }: { readonly job: JobName; readonly input: unknown }): unknown {
  return (JOBS[job] as (input: unknown) => unknown)(input)
}
