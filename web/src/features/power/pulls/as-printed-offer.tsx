import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../../data/api.ts'

/** Why a figure counts for no target, and the one click that lets the build count what was printed. */
export function AsPrintedOffer({ build, why, isMended }: { build: RecordsAnswer['build']; why: string; isMended: boolean }) {
  const [patch, { isLoading }] = api.usePatchBuildMutation()
  const count = () => void patch({ buildId: build.id, body: { version: build.version, powerBasis: { ...build.powerBasis, standard: 'asPrinted' } } })
  return (
    <p className="text-wait" role="status">
      {why}{' '}
      {isMended && (
        <button type="button" className="word-link" disabled={isLoading} onClick={count}>
          Let the build count power as printed
        </button>
      )}
    </p>
  )
}
