import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do job', group: 'Do', label: 'Add a job', hint: 'task, hours, who, wait', to: `${base}/jobs?tab=road&do=job` },
  { key: 'do job hours', group: 'Do', label: 'Log hours on a job', hint: 'worked, tonight', to: `${base}/jobs?tab=road&do=hours` },
  { key: 'do event', group: 'Do', label: 'Enter an event', hint: 'date, track day, hire, scrutineering', to: `${base}/jobs?tab=dates&do=event` },
  { key: 'do hand', group: 'Do', label: 'Enter a hand', hint: 'person, week, evenings', to: `${base}/jobs?tab=dates&do=hand` },
  { key: 'do decision', group: 'Do', label: 'Ask a question and weigh options', hint: 'decision, compare', to: `${base}/jobs?tab=decisions&do=decision` },
  { key: 'go money', group: 'Go to', label: 'What the build costs by stage', hint: 'jobs, money, budget, paid', to: `${base}/jobs?tab=money` },
  { key: 'go dates', group: 'Go to', label: 'Hands, weeks and events', hint: 'jobs, calendar, away', to: `${base}/jobs?tab=dates` },
  ...records.tasks
    .filter(({ state }) => state === 'planned' || state === 'underway')
    .map((task) => ({ key: task.id, group: 'Jobs', label: task.name, hint: 'open job', to: `${base}/jobs?tab=road&task=${task.id}` })),
  ...records.decisions.map(({ id, question }) => ({
    key: id,
    group: 'Decisions',
    label: question,
    hint: 'decision',
    to: `${base}/jobs?tab=decisions&decision=${id}`,
  })),
  ...records.events.map((event) => ({
    key: event.id,
    group: 'Events',
    label: event.name,
    hint: event.startsOn,
    to: `${base}/jobs?tab=dates&event=${event.id}`,
  })),
]
