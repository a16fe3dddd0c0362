import type { Knex } from 'knex'
import * as createRecords from './0001-create-records.ts'
import * as logAndImport from './0002-log-and-import.ts'
import * as addWeightRooms from './0003-add-weight-rooms.ts'
import * as addPowerRooms from './0004-add-power-rooms.ts'
import * as keyByBuild from './0005-key-by-build.ts'
import * as openGoals from './0006-open-goals.ts'
import * as weighAndScore from './0007-weigh-and-score.ts'
import * as dynoSettings from './0008-dyno-settings.ts'
import * as partsAndStages from './0009-parts-and-stages.ts'
import * as importsByBuild from './0010-imports-by-build.ts'
import * as drivetrain from './0011-drivetrain.ts'
import * as aero from './0012-aero.ts'
import * as aeroTests from './0013-aero-tests.ts'
import * as track from './0014-track.ts'
import * as trackLogs from './0015-track-logs.ts'
import * as expectations from './0016-expectations.ts'
import * as workshop from './0017-workshop.ts'
import * as noise from './0018-noise.ts'
import * as checks from './0019-checks.ts'
import * as otherCoolers from './0020-other-coolers.ts'
import * as typedAt from './0021-typed-at.ts'
import * as crew from './0022-crew.ts'
import * as copies from './0023-copies.ts'
import * as garageRows from './0024-garage-rows.ts'
import * as keptResults from './0025-kept-results.ts'
import * as panels from './0026-panels.ts'
import * as outlineOfStage from './0027-outline-of-a-stage.ts'
import * as heightMaps from './0028-height-maps.ts'
import * as goalsOfTracks from './0029-goals-of-tracks.ts'

export const migrations: Record<string, Knex.Migration> = {
  '0001-create-records': createRecords,
  '0002-log-and-import': logAndImport,
  '0003-add-weight-rooms': addWeightRooms,
  '0004-add-power-rooms': addPowerRooms,
  '0005-key-by-build': keyByBuild,
  '0006-open-goals': openGoals,
  '0007-weigh-and-score': weighAndScore,
  '0008-dyno-settings': dynoSettings,
  '0009-parts-and-stages': partsAndStages,
  '0010-imports-by-build': importsByBuild,
  '0011-drivetrain': drivetrain,
  '0012-aero': aero,
  '0013-aero-tests': aeroTests,
  '0014-track': track,
  '0015-track-logs': trackLogs,
  '0016-expectations': expectations,
  '0017-workshop': workshop,
  '0018-noise': noise,
  '0019-checks': checks,
  '0020-other-coolers': otherCoolers,
  '0021-typed-at': typedAt,
  '0022-crew': crew,
  '0023-copies': copies,
  '0024-garage-rows': garageRows,
  '0025-kept-results': keptResults,
  '0026-panels': panels,
  '0027-outline-of-a-stage': outlineOfStage,
  '0028-height-maps': heightMaps,
  '0029-goals-of-tracks': goalsOfTracks,
}
