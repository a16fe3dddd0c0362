import { formatNumber, fromSi, type SheetState } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'

/** Sheets of one's own: how stiff each is, and whether strips of it said so. */
export function OwnSheets({ sheets, edit }: { sheets: readonly SheetState[]; edit: (id: string) => void }) {
  const { units, decimalMark } = useQuantities()
  const unit = units.stress === 'MPa' ? 'GPa' : units.stress
  const modulus = (pa: number | null | undefined) =>
    pa == null ? '' : `${formatNumber(fromSi('stress', pa, unit), unit === 'GPa' ? 1 : 0, { mark: decimalMark })} ${unit}`
  return (
    <section aria-label="Sheets of your own" className="mt-6">
      <h2 className="mb-1">Sheets of your own</h2>
      <p className="mb-2 max-w-2xl text-quiet">
        Listed values above are from memory, of handbooks and common practice: no sheet of yours was measured for them.
      </p>
      {sheets.length === 0 ? (
        <p className="mb-2 max-w-2xl text-quiet">
          Cut two strips of the sheet you have, lay each on two held ends, press the middle with a known weight and read how far it gives: your sheet then
          stands in the table above by what it did.
        </p>
      ) : (
        <ScrollBox label="Sheets of your own">
          <table className="lined mb-2">
            <thead>
              <tr>
                <th className="text-left">Sheet</th>
                <th className="pl-6 text-right">along</th>
                <th className="pl-6 text-right">across</th>
                <th className="pl-6 text-left">how known</th>
                <th className="no-print">
                  <span className="sr-only">Change it</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sheets.map(({ record, found, refusal }) => (
                <tr key={record.id}>
                  <th scope="row" className="text-left font-normal">
                    {record.name}
                  </th>
                  <td className="pl-6 text-right tabular-nums">{modulus(found?.material.youngPa)}</td>
                  <td className="pl-6 text-right tabular-nums">{modulus(found?.material.youngAcrossPa)}</td>
                  <td className={`pl-6 ${refusal ? 'text-danger' : ''}`}>
                    {refusal ?? (found?.isMeasured.along ? (found.isMeasured.across ? 'strips, both ways' : 'strips along') : 'as typed')}
                  </td>
                  <td className="no-print pl-6">
                    <button type="button" className="word-link" onClick={() => edit(record.id)} aria-label={`edit ${record.name}`}>
                      edit
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
      <button type="button" className="button no-print" onClick={() => edit('new')}>
        Add a sheet
      </button>
    </section>
  )
}
