import type { StoredRecords } from '@bold-ballast/contract'
import { type Board, controlTrack, EXPECTED, METRIC_INFO } from '@bold-ballast/core'
import { inUnits, spreadIn, stageCell, type Units } from '../../shared/table-cells.ts'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

export const stagesTable = (records: StoredRecords, board: Board): CsvTable => ({
  head: ['Place', 'Stage', 'Date', 'State', 'Note'],
  rows: records.stages.map((stage, at) => [stage.position, stage.name, stage.date, board.stages[at]?.state ?? null, stage.note]),
})

export const goalsTable = (records: StoredRecords, units: Units): CsvTable => ({
  head: ['Goal', 'Metric', 'Track', 'Unit', 'Sense', 'Value', 'Upper value', 'Stage', 'Source', 'Typed'],
  rows: [...records.targets, ...records.limits].map((record) => {
    const { kind, word } = METRIC_INFO[record.metric]
    const isTarget = 'dueStageId' in record
    return [
      isTarget ? 'target' : 'limit',
      word,
      record.metric === 'lapTime' ? ((records.tracks.find(({ id }) => id === record.trackId) ?? controlTrack({ records }))?.name ?? null) : null,
      units[kind],
      record.sense,
      inUnits(units)(kind, record.value),
      isTarget ? inUnits(units)(kind, record.highValue) : null,
      stageCell(records, isTarget ? record.dueStageId : record.fromStageId),
      isTarget ? null : record.source,
      record.typed ?? null,
    ]
  }),
})

export const expectationsTable = (records: StoredRecords, units: Units): CsvTable => ({
  head: ['Stage', 'What', 'Given by', 'Mode', 'Unit', 'Value', 'Spread', 'How we know', 'Typed'],
  rows: records.expectations.map(({ stageId, partId, changeId, metric, mode, value, sd, proof, typed }) => {
    const { kind, word } = EXPECTED[metric]
    const line = records.changes.find(({ id }) => id === changeId)
    const isFactor = mode === 'times'
    return [
      stageCell(records, line?.stageId ?? stageId),
      word,
      line?.name ?? records.parts.find(({ id }) => id === partId)?.name ?? null,
      mode,
      isFactor ? 'factor' : units[kind],
      isFactor ? value : inUnits(units)(kind, value),
      isFactor ? sd : spreadIn(units)(kind, sd),
      proof,
      typed ?? null,
    ]
  }),
})
