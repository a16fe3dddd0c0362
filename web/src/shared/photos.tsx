import type { RecordsAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { api, readFailure } from '../data/api.ts'
import { useRemoval } from '../ui/forms/removal.tsx'
import { Alert } from '../ui/states.tsx'

const MOST_BYTES = 10 * 1024 * 1024

/** Pictures that hang on a record: the display of the scale, the part. JPEG, PNG or WebP up to 10 MB each. */
export function Photos({ records, recordId }: { records: RecordsAnswer; recordId: string }) {
  const buildId = records.build.id
  const [add, { isLoading }] = api.useAddPhotoMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const removal = useRemoval(buildId, 'photos')
  const photos = records.photos.filter((photo) => photo.recordId === recordId)
  const take = async (file: File) => {
    if (file.size > MOST_BYTES) return setFailure('The picture is larger than 10 MB. Take it smaller, or crop it.')
    const answer = await add({ buildId, id: crypto.randomUUID(), recordId, file })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  return (
    <section className="mt-4 border-t border-line pt-3">
      <h3 className="font-semibold">Pictures</h3>
      <ul className="my-2 flex flex-wrap gap-3">
        {photos.map((photo) => {
          const url = `/api/builds/${buildId}/photos/${photo.id}/bytes`
          return (
            <li key={photo.id} className="w-[132px]">
              <a href={url} target="_blank" rel="noreferrer">
                <img src={url} alt={photo.name} className="h-[96px] w-[132px] border border-line object-cover" />
              </a>
              <span className="flex justify-between gap-2 text-xs">
                <span className="truncate text-quiet">{photo.name}</span>
                <button type="button" className="word-link" onClick={() => void removal.take(photo)} aria-label={`Delete ${photo.name}`}>
                  delete
                </button>
              </span>
            </li>
          )
        })}
      </ul>
      <label className="button">
        {isLoading ? 'Sending …' : 'Add a picture'}
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (file) void take(file)
            event.target.value = ''
          }}
        />
      </label>
      {removal.notice}
      {failure && <Alert className="mt-2">{failure}</Alert>}
    </section>
  )
}
