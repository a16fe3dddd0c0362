import { timeText } from '../words.ts'

/** Two people changed one record: both versions side by side, and a choice. */
export function StaleChoice({
  mine,
  theirs,
  keepMine,
  takeTheirs,
}: {
  mine: Record<string, unknown>
  theirs: Record<string, unknown>
  keepMine: () => void
  takeTheirs: () => void
}) {
  const show = (value: unknown) =>
    Array.isArray(value)
      ? value.map((item) => (item as { typed?: string }).typed ?? JSON.stringify(item)).join(', ')
      : typeof value === 'object' && value !== null
        ? JSON.stringify(value)
        : String(value ?? '–')
  const differing = Object.keys(mine).filter((key) => key !== 'version' && show(mine[key]) !== show(theirs[key]))
  return (
    <>
      <table className="my-2 w-full">
        <thead>
          <tr>
            <th>Field</th>
            <th>Yours</th>
            <th>
              {String(theirs.updatedBy ?? 'Theirs')}
              {typeof theirs.updatedAt === 'string' ? `, ${timeText(theirs.updatedAt)}` : ''}
            </th>
          </tr>
        </thead>
        <tbody>
          {differing.map((key) => (
            <tr key={key} className="border-t border-line">
              <td className="pr-3">{key}</td>
              <td className="pr-3">{show(mine[key])}</td>
              <td>{show(theirs[key])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex gap-2">
        <button type="button" className="button" onClick={keepMine}>
          Store mine
        </button>
        <button type="button" className="button" onClick={takeTheirs}>
          Keep theirs
        </button>
      </div>
    </>
  )
}
