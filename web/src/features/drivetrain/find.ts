import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do driveline', group: 'Do', label: 'Type gears, final and tyres in one line', hint: 'drivetrain', to: `${base}/drivetrain?do=line` },
  { key: 'do timed', group: 'Do', label: 'Log a strip time', hint: 'drivetrain, 0-100, 60 ft', to: `${base}/drivetrain?tab=line&do=timed` },
  {
    key: 'do drive settings',
    group: 'Do',
    label: 'Set launch, shock, drag and grip',
    hint: 'drivetrain, settings of a stage',
    to: `${base}/drivetrain?do=settings`,
  },
  { key: 'do course', group: 'Do', label: 'Name the corners of a course', hint: 'drivetrain', to: `${base}/drivetrain?do=course` },
  { key: 'go slide', group: 'Go to', label: 'Slides and what gears hold', hint: 'drivetrain', to: `${base}/drivetrain?tab=slide` },
  { key: 'go finals', group: 'Go to', label: 'Finals on a course', hint: 'drivetrain', to: `${base}/drivetrain?tab=finals` },
  ...records.courses.map((course) => ({
    key: course.id,
    group: 'Courses',
    label: course.name,
    hint: `${course.corners.length} corners`,
    to: `${base}/drivetrain?course=${course.id}`,
  })),
]
