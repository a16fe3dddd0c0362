import { DEVICE_KINDS, type DeviceKind, USUAL_PRESSURE, USUAL_PRESSURE_SD } from '@bold-ballast/core'
import type { FieldSpec } from '../../ui/forms/record-form.tsx'
import { usualText } from '../../ui/quantity.ts'

export const DEVICE_WORDS: Readonly<Record<DeviceKind, string>> = {
  body: 'the bare body',
  splitter: 'splitter',
  airDam: 'air dam',
  canards: 'canards',
  vent: 'vent',
  floor: 'floor',
  sideSkirt: 'side skirt',
  diffuser: 'diffuser',
  wing: 'wing',
  spoiler: 'spoiler',
  other: 'other',
}
export const BOX = [
  ['xFrontM', 'Front end behind the front axle', 'Ahead of the axle is below zero.'],
  ['xRearM', 'Rear end behind the front axle', ''],
  ['yInnerM', 'Inner edge from the middle', ''],
  ['yOuterM', 'Outer edge from the middle', ''],
  ['zBottomM', 'Bottom over the ground', ''],
  ['zTopM', 'Top over the ground', ''],
] as const
/** The fields of a device; a wing's own appear beside the box of the others. */
export const deviceFieldSpecs = (lines: readonly { readonly id: string; readonly name: string }[]): FieldSpec[] => [
  { name: 'kind', label: 'Kind', type: 'select', options: DEVICE_KINDS.map((value) => ({ value, label: DEVICE_WORDS[value] })) },
  { name: 'name', label: 'Name' },
  {
    name: 'changeId',
    label: 'Goes on with',
    type: 'select',
    hint: 'Its mass, cost and stage are those of that line.',
    options: [
      { value: '', label: 'it came with the car' },
      { value: 'new', label: 'a new line of this stage, to be weighed' },
      ...lines.map(({ id, name }) => ({ value: id, label: name })),
    ],
  },
  {
    name: 'from',
    label: 'What it does is',
    type: 'select',
    options: [
      { value: 'typed', label: 'typed, line by line below' },
      { value: 'wing', label: 'estimated: one wing element' },
      { value: 'splitter', label: 'estimated: a splitter as a pressure panel' },
    ],
  },
  {
    name: 'notches',
    label: 'Notches, one a line: name; angle of a wing; what it gives',
    hint: 'Typed: hole 3; 4°; down 0.34 ± 0.06; drag 0.024 ± 0.006; catalogue. At the tyres: as it is; front -0.02 ± 0.04; rear -0.07 ± 0.05; drag 0.7; guess. Areas in m²: force over the pressure of the air. Only a name: nobody knows; nothing: it counts as nothing.',
    type: 'textarea',
    isWide: true,
  },
  {
    name: 'zeroLift',
    label: 'Angle of no lift of the section',
    section: 'Of an estimate',
    hint: 'Below zero where it pushes down at no angle; −4° is usual (common practice, no source).',
  },
  {
    name: 'place',
    label: 'The wing stands',
    type: 'select',
    options: [
      { value: 'behindRoof', label: 'behind the roof' },
      { value: 'freeAir', label: 'in free air' },
    ],
  },
  { name: 'lip', label: 'Lip ahead of the bumper' },
  { name: 'width', label: 'Width of the lip' },
  {
    name: 'pressure',
    label: 'Pressure over that of the moving air',
    hint: `${USUAL_PRESSURE} ± ${USUAL_PRESSURE_SD.toFixed(2)} is usual (common practice, no source).`,
  },
  ...BOX.map(
    ([name, label, hint], i): FieldSpec => ({
      name,
      label,
      ...(hint ? { hint } : {}),
      ...(i === 0 ? { section: 'Its box, left half; of a wing its own sizes below stand' } : {}),
    }),
  ),
  { name: 'span', label: 'Span', section: 'A wing' },
  { name: 'chords', label: 'Chord of each element', hint: (units) => `One, or several parted by blanks: ${usualText(units, 'length', 0.26)}.` },
  { name: 'pivotX', label: 'Pivot behind the front axle' },
  { name: 'pivotZ', label: 'Pivot over the ground' },
  { name: 'pivotShare', label: 'Pivot behind its leading edge', hint: 'As a share of the chord; 25 % is usual.' },
  { name: 'plateHeight', label: 'End plates, height', hint: 'Empty: none.' },
  { name: 'plateLength', label: 'End plates, length' },
  { name: 'plateTop', label: 'Their top over the pivot' },
  {
    name: 'heightMap',
    label: 'By its height, a line each: clearance of its underside; share of its value',
    section: 'Height map, only where somebody measured one',
    hint: (units) =>
      `Rising, two lines at least, such as ${usualText(units, 'length', 0.03)}; 1.4. Level beyond the ends. Empty: it gives the same at any height.`,
    type: 'textarea',
    isWide: true,
  },
]
