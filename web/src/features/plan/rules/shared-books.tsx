import type { RecordsAnswer } from '@bold-ballast/contract'
import { TakenFromOthers } from '../../../shared/taken-from-others.tsx'

/** Rule books that other builds of the garage share, each to be copied; which lines and parts they forbid is said anew here. */
export const SharedBooks = ({ records, open }: { records: RecordsAnswer; open: (id: string) => void }) => (
  <TakenFromOthers
    list="ruleBooks"
    buildId={records.build.id}
    nameOf={({ name, edition }) => `${name} ${edition}`}
    fieldsOf={({ rules }) => ({ rules: rules.map((rule) => ({ ...rule, blocks: [] })) })}
    taken={(id, name) => {
      open(id)
      return `${name} is copied. Say which lines and parts of this build its rules forbid.`
    }}
  />
)
