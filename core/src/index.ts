export { speedAfter } from './aero/coast-down.ts'
export { USUAL_ROTATING_SHARE } from './aero/coast-down-drag.ts'
export { keepFit } from './aero/coast-down-fit.ts'
export { type CoastPlan, planCoastDown } from './aero/coast-down-plan.ts'
export { type CoastFile, coastFile, type ToldColumn } from './aero/coast-file.ts'
export { type CoastPair, type CoastRun, type KeptFit, requireCoastRun, thinRun } from './aero/coast-model.ts'
export { compareTests, differenceSd, type TestComparison } from './aero/compare-tests.ts'
export { type AxleAreas, airPressurePa, BALANCE_SCHOOL_WORDS, BALANCE_SCHOOLS, type BalanceSchool, type DeviceForce, deviceLoads } from './aero/device-loads.ts'
export { powerFromDragW, USUAL_ROLLING } from './aero/drag-top-speed.ts'
export { driveTest, type SimulatedTest, type TestRow } from './aero/drive-test.ts'
export { wholeDownforce } from './aero/measured-downforce.ts'
export { contactMps, type HeightsInput, heightsAlong, packerForHeight, rideHeights, springForHeight, type Touch, touches } from './aero/ride-heights.ts'
export { ROLLING_SCHOOL_WORDS, ROLLING_SCHOOLS } from './aero/rolling-schools.ts'
export { type DeviceBox, largestChordM, type RuleReading, SPARE_M, type WingPose, wingBox } from './aero/rule-box.ts'
export { type SidePoint, sideReader } from './aero/side-trace.ts'
export { splitterEstimate, USUAL_PRESSURE, USUAL_PRESSURE_SD } from './aero/splitter.ts'
export { STEADY_READINGS, type SteadyReading } from './aero/steady-readings.ts'
export { wheelRates } from './aero/wheel-rates.ts'
export { SLOPE_SCHOOL_WORDS, SLOPE_SCHOOLS, USUAL_WING, WING_PLACES, type WingEstimate, wingEstimate } from './aero/wing.ts'
export { attempt, orElse } from './attempt.ts'
export { type NextAction, sayNext } from './board/advice.ts'
export * from './board/board.ts'
export { lateValue } from './board/late-value.ts'
export { MEASUREMENTS, METRIC_INFO, standardWords } from './board/metrics.ts'
export { type GarageState, type OwnerAction, ownerAdvice, sayOwnerAction } from './board/owner-advice.ts'
export { ANSWER_READS, type AnswerName } from './board/reads.ts'
export { type BookReading, type ChangedSum, type ClassChange, makeRules, type RuleStanding, type RulesAtStage, type RulesRoom } from './board/rule-readings.ts'
export { movedByPerson, type PersonMoved } from './board/since/moved-by-person.ts'
export { type LiveLists, type MovedLine, type MovedPair, putBack } from './board/since/put-back.ts'
export type { SpellItem, SpellKind } from './board/since/spells.ts'
export { type GoalMoved, type MovedSpell, type Standing, type VerdictThen, type WhatMoved, whatMoved } from './board/since/what-moved.ts'
export { type MetricSet, StageValues } from './board/stage-values.ts'
export type { LimitVerdict, TargetVerdict } from './board/verdict.ts'
export { makeWorking, WORKING_SUBJECTS, type WorkingSubject } from './board/working.ts'
export { discRiseK, firstToLock, idealBrakeShare } from './brakes/brake-share.ts'
export { CALCULATIONS, findCalculation } from './calculations/all.ts'
export { type Calculation, type CalculationAnswer, type CalculationTools, describeCalculation, runCalculation } from './calculations/registry.ts'
export type { FormulaSymbol, Typeset } from './calculations/typeset/set.ts'
export { typesetOf } from './calculations/typeset/typeset-of.ts'
export { setsNeeded } from './checks/life-left.ts'
export { roundTime } from './checks/round-time.ts'
export { sparesNeeded } from './checks/spares.ts'
export { fitsIn, type OuterSize } from './cooling/fits-in.ts'
export { driveCourse, powerBandOf, type Straight, usedBand } from './drivetrain/course.ts'
export type { DriveCar } from './drivetrain/drive-car.ts'
export { type RankedFinals, rankFinals } from './drivetrain/finals.ts'
export { type Held, heldAlong } from './drivetrain/held.ts'
export { LEAVE_SCHOOL_WORDS, LEAVE_SCHOOLS, type LeaveSchool, leaveSpeeds } from './drivetrain/leave-speeds.ts'
export { driveMotion, type GearFacts, type Motion } from './drivetrain/motion.ts'
export { quarterMileRule } from './drivetrain/quarter-mile-rule.ts'
export { type Moment, momentAt, run, type Stretch } from './drivetrain/run.ts'
export { type ShiftCost, shiftCosts } from './drivetrain/shift-costs.ts'
export { holdSlide, type SlideState, type SlidingCar } from './drivetrain/slide.ts'
export {
  type Powertrain,
  type SlideCorner,
  type SlideGear,
  type SlideLevers,
  slideGears,
  slideLevers,
  slideLink,
  slideThrough,
} from './drivetrain/slide-gears.ts'
export { topSpeed } from './drivetrain/top-speed.ts'
export { DRIVE_USE_WORDS, DRIVE_USES, SHOCK_OF_USE, SHOCK_SCHOOL_WORDS, SHOCK_SCHOOLS } from './drivetrain/torque-path.ts'
export { tyreRolling, tyreSize } from './drivetrain/tyre.ts'
export { whatIfCar } from './drivetrain/what-if.ts'
export { type SpreadValue, type SpreadYardsticks, spreadYardsticks, YARDSTICKS, type Yardstick, yardsticks } from './drivetrain/yardsticks.ts'
export { BOOST_SCHOOL_WORDS, BOOST_SCHOOLS, type BoostSchool, STANDARDS } from './dyno/correction.ts'
export { alongGrid, CURVE_VERSION, type GridCurve, gridSpeedRpm, scaleCurve } from './dyno/curve.ts'
export { delimiterWord, findDelimiter } from './dyno/find-delimiter.ts'
export { type PictureAxis, type PicturePoint, pictureReader } from './dyno/picture-axes.ts'
export { powerFromTorqueW, torqueFromPowerNm } from './dyno/power-torque.ts'
export { type Channel, type PullFigures, pullFigures } from './dyno/pull-figures.ts'
export { type PlannedHours, type PlannedStep, type PullPlanInput, planPulls } from './dyno/pull-planner.ts'
export { type PullFileReport, PullReader, type ReadPull } from './dyno/pull-reader.ts'
export type { ChannelRole, ColumnMapping } from './dyno/read-header.ts'
export { LOSS_SCHOOL_WORDS, LOSS_SCHOOLS, type LossSchool, wheelToCrank } from './dyno/wheel-to-crank.ts'
export { type BoxProblem, type Placing, placeCircuits } from './electrics/placing.ts'
export { FLOW_REFERENCES } from './engine/compressor.ts'
export { HEAT_SCHOOLS } from './engine/mechanics.ts'
export { CalculationError, type CalculationErrorCode } from './errors.ts'
export { type CostForecast, type CostWorth, costWorth } from './jobs/cost.ts'
export { type UnmetCrew, unmetCrews } from './jobs/crews.ts'
export { dayAfter, daysFrom, weekdayOf } from './jobs/days.ts'
export { type Decided, decide, type Weighed } from './jobs/decide.ts'
export { type Deadline, drawLengths, type JobAhead, lookAhead, type RoadAhead, type StageReady } from './jobs/draws.ts'
export { DAY_H, type Piece, type RoadHand, sessionsOf } from './jobs/free-time.ts'
export { findHelps, type Helped, type Move } from './jobs/helps.ts'
export { type HandHours, hoursLeft } from './jobs/hours-left.ts'
export { joinedPairs, type OptimismKind, type RealPairs } from './jobs/optimism.ts'
export { dayAtEnd, readDay } from './jobs/read-day.ts'
export {
  HORIZON_DAYS,
  type Laid,
  layRoad,
  lengthsAt,
  type Otherwise,
  type ReadyRoad,
  type Road,
  type RoadJob,
  type RoadPart,
  readyH,
  readyRoad,
} from './jobs/road.ts'
export { findSlack, type Slack, slipOf } from './jobs/slips.ts'
export { type RoadAsked, type RoadSummary, summariseRoad } from './jobs/summary.ts'
export { type TakeOffPart, type TakeOffPlan, takeOffPlan } from './jobs/take-off.ts'
export { sharesOf } from './mass/add-at.ts'
export { planBallast } from './mass/ballast.ts'
export type { BallastAnswer, BallastInput, BallastPlacement } from './mass/ballast-types.ts'
export type { CentreHeight } from './mass/centre-of-mass-height.ts'
export { leastLiftM } from './mass/centre-of-mass-height.ts'
export { type CornerBalance, cornerBalance, forward, type PerchPlan } from './mass/corner-balance.ts'
export { PAD_NAMES, PAD_WORDS, type PadName } from './mass/corners.ts'
export type { GuessPair, GuessSide } from './mass/estimate-bias.ts'
export { type CornerPlaces, type PerCorner, perCorner } from './mass/suspension.ts'
export { isMeasured, leastProof, type Proof, proofRank } from './proof/quantity.ts'
export { type AeroDevice, aeroDeviceKind, type Setup, setupKind } from './records/aero-kinds.ts'
export {
  type AeroBasis,
  type AxleSpringsRecord,
  DEVICE_KINDS,
  type DeviceKind,
  type DeviceValue,
  type Notch,
  type Outline,
  USUAL_AERO_BASIS,
  type WingShapeRecord,
} from './records/aero-schemas.ts'
export { AERO_TEST_KINDS, type AeroRun, type AeroTest, type AeroTestKind, aeroRunKind } from './records/aero-test-kinds.ts'
export * from './records/balance-kinds.ts'
export * from './records/brake-kinds.ts'
export * from './records/check-kinds.ts'
export { type Place, placeSchema } from './records/common-fields.ts'
export { CRITERION_SOURCES, type Decision, decisionKind } from './records/decision-kind.ts'
export { listOfAddress, listsOf, type RecordKind, RecordRefusal, type RuleContext } from './records/define-record.ts'
export {
  type Course,
  courseKind,
  type DriveSetting,
  driveSettingKind,
  gearWord,
  READ_METRICS,
  type Reading,
  readingKind,
  SURFACES,
  type Surface,
  TIMINGS,
  type Timing,
} from './records/drive-kinds.ts'
export {
  DRIVE_ROLES,
  type DriveOf,
  type DriveRole,
  GEARBOX_STYLES,
  type GearboxStyle,
  type Known,
  type PartDrive,
  partDriveSchema,
  TYRE_CLASSES,
  type TyreClass,
} from './records/drive-schemas.ts'
export { FIRST_SETTING, upgradeRecord } from './records/earlier-editions.ts'
export * from './records/engine-plan-kind.ts'
export * from './records/kinds.ts'
export type { LapBasis } from './records/lap-basis.ts'
export * from './records/metric-keys.ts'
export { CARRIED_BY, type CarriedBy, type Mount, SECONDS, type SecondRetention } from './records/mount-kind.ts'
export type { Panel, PanelMaterialRecord } from './records/panel-kinds.ts'
export * from './records/part-kinds.ts'
export * from './records/picture-kind.ts'
export * from './records/plan-kinds.ts'
export * from './records/power-kinds.ts'
export { type BrokenRecord, readBuildRecords } from './records/read-records.ts'
export * from './records/records.ts'
export { type BookRule, type RuleAverage, type RuleBook, ruleBookKind, ruleFields, ruleSchema } from './records/rule-kinds.ts'
export * from './records/supply-and-space.ts'
export * from './records/systems-kinds.ts'
export * from './records/track/lap-kinds.ts'
export * from './records/track/track-kinds.ts'
export * from './records/track/track-log-kinds.ts'
export * from './records/track/track-session-kinds.ts'
export * from './records/weight-kinds.ts'
export { EVENT_KINDS, eventKind, type Hand, handKind, type Lesson, lessonKind, type Task, taskKind, type WorkshopEvent } from './records/workshop-kinds.ts'
export { buildStory, type StoryChapter, type StoryFigure, type StoryLine } from './report/build-story.ts'
export { shownOn } from './report/shown-on.ts'
export { type TechSheet, type TechSheetRow, techSheet } from './report/tech-sheet.ts'
export { type TickList, tickList, type WorkOrder, workOrder } from './report/tick-list.ts'
export { type AeroLimit, type AeroRoom, type AeroRoomStage, dragLimitedSpeed, makeAeroRoom, type RoomTest } from './rooms/aero/aero-room.ts'
export { type Anchors, NO_ANCHORS } from './rooms/aero/anchors.ts'
export { type BalanceStep, balanceSteps } from './rooms/aero/balance-steps.ts'
export { type RoomDevice, type RoomNotch, standingValue } from './rooms/aero/devices.ts'
export type { MountState } from './rooms/aero/mounts.ts'
export type { PanelFault, PanelState, SheetState } from './rooms/aero/panels.ts'
export { heightsInput, totalsAlong } from './rooms/aero/settled.ts'
export { CORNER_SETTINGS, type CornerSetting, isOffWanted, type SetupSheet, type SheetCell, type SheetRow } from './rooms/aero/setup-sheet.ts'
export { type StageAxle, USUAL_TYRE_RATE_N_PER_M } from './rooms/aero/springs.ts'
export { parseTapedLine, type ReadTaped } from './rooms/aero/taped-line.ts'
export {
  type AeroTotals,
  aeroTotals,
  boxAtPicks,
  type DeviceLine,
  type Picks,
  pickedNotch,
  type TotalsBasis,
  wantedChances,
} from './rooms/aero/totals.ts'
export { type CheckLineOptions, type ReadCheck, readCheckLine } from './rooms/checks/check-line.ts'
export { type DamageSeen, damageSeen } from './rooms/checks/damage.ts'
export { type LineOfLog, lineOfLog } from './rooms/checks/log-line.ts'
export { type Gate, gateBehind, type HourLaid, layHour, type ReadingAhead, sessionsByStep } from './rooms/checks/shakedown.ts'
export { checksInCar, type Due, type DueAsked, dueAt, inWalkOrder, isBadMark, marksByCheck, roundOf } from './rooms/checks/states.ts'
export { readStopLine, type StopReading } from './rooms/checks/stop-line.ts'
export { type TakeItem, type TakeList, takeAlong } from './rooms/checks/take.ts'
export { type CheckBody, isDueWhenTouched, isSafety, minutesOf, needOfGap, usualChecks } from './rooms/checks/usual.ts'
export { runnableCourse } from './rooms/drivetrain/courses.ts'
export { DRIVE_INPUT_WORDS, type DriveInput, type DriveInputKey, movedCar, USUAL_FRICTION, USUAL_SHIFT_S } from './rooms/drivetrain/drive-inputs.ts'
export { driveLineParts, driveLineWords, parseDriveLine, type ReadDriveLine } from './rooms/drivetrain/drive-line.ts'
export { drivePartText, parseDrivePart } from './rooms/drivetrain/drive-part-text.ts'
export { type DriveRoom, type DriveRoomStage, type DriveRow, makeDriveRoom } from './rooms/drivetrain/drive-room.ts'
export { DRIVE_ROLE_WORDS, drivelineAtStage, driveWords, finalRatioOf, slotsOf, wantedOf } from './rooms/drivetrain/driveline.ts'
export { type GearsBand, gearsBand } from './rooms/drivetrain/gears-band.ts'
export type { MissingInput } from './rooms/drivetrain/stage-inputs.ts'
export type { PathHeadroom, StagePath } from './rooms/drivetrain/stage-path.ts'
export {
  type CornerSlide,
  type SlideMap,
  type SlideSetup,
  slideCorner,
  slideCorners,
  slideLack,
  slideMap,
  slidingShare,
} from './rooms/drivetrain/stage-slide.ts'
export { TIMING_SD_S, unsureInputs } from './rooms/drivetrain/stage-yardsticks.ts'
export { parseTimedLine, type ReadTimed } from './rooms/drivetrain/timed-line.ts'
export { type TyresForEvents, tyresForEvents } from './rooms/drivetrain/tyres-for-events.ts'
export { type MoveNames, moveText } from './rooms/jobs/advice.ts'
export type { DecisionView } from './rooms/jobs/decisions.ts'
export { type JobLineOptions, type ReadJob, type ReadJobLine, readJobLine } from './rooms/jobs/job-line.ts'
export { type JobsRoom, makeJobsRoom, type OptimismShown, type StageRoad } from './rooms/jobs/jobs-room.ts'
export type { CostItem, StageMoney } from './rooms/jobs/money.ts'
export { leadDaysOf, realPairsOf, workedHours } from './rooms/jobs/real-pairs.ts'
export { ASSUMED_HAND, isOnItsWay, openTasks, type RoadDeadline } from './rooms/jobs/road-of-car.ts'
export type { WorthItem } from './rooms/jobs/worth.ts'
export { knownLife, type LifeAhead, livesAhead, SURE_ENOUGH } from './rooms/parts/lives-ahead.ts'
export { parseRatingLine, RATING_WORDS, ratingLine } from './rooms/parts/part-lines.ts'
export { lifeOf, type PartLife, partsAtStage, partsOfKind, ratedLimit, wholeCost, wholeMassKg, wornParts } from './rooms/parts/parts.ts'
export { type WeakestTorque, weakestTorque } from './rooms/parts/rating-limits.ts'
export { type Ran, type SessionUse, sessionUses } from './rooms/parts/session-use.ts'
export { type WeakLink, weakLinks } from './rooms/parts/weak-links.ts'
export { type HeadroomStop, headroomStop, headroomStopAtStage, type StageWeakLinks, weakLinksAtStage } from './rooms/parts/weak-links-at-stage.ts'
export {
  boostForPowerPa,
  type ComparableSets,
  type ComparedSet,
  comparableSets,
  compareSets,
  type PullSet,
  type SetComparison,
  type SpeedBand,
} from './rooms/power/compare-sets.ts'
export { type DrivelineLoss, lossOf, USUAL_LOSS } from './rooms/power/driveline-loss.ts'
export { planAtStage } from './rooms/power/engine-plan-at-stage.ts'
export type { PlanFigure, PlanStep, PlanStepKey } from './rooms/power/engine-plan-steps.ts'
export { usualBsfc } from './rooms/power/engine-plan-supply.ts'
export { type Ladder, ladderOf, ladderVisits, powerAtSpeed, type Rung, type SettingChange, speedAtPower } from './rooms/power/ladder.ts'
export { type MeasuredEngine, measuredEngine, measuredPowerW } from './rooms/power/measured-engine.ts'
export { fuelRoleOf, planWithParts } from './rooms/power/plan-of-car.ts'
export { makePowerRoom, type PowerRoom, type SessionFigures, type StagePower } from './rooms/power/power-room.ts'
export { basisFactor, settingOf } from './rooms/power/session-power.ts'
export { STOP_CHANNELS, type StopChannel, type StopReason, stopState } from './rooms/power/stop-state.ts'
export { usualSessions } from './rooms/power/usual-sessions.ts'
export { isSameSetting, visitKey } from './rooms/power/visits.ts'
export { type WorkedPlan, workEnginePlan } from './rooms/power/work-engine-plan.ts'
export { type AlarmView, isOverStop } from './rooms/systems/alarms.ts'
export { type CircuitBody, readCircuitLine } from './rooms/systems/circuit-line.ts'
export { type CoolingSetup, type CoolingView, coolingPlanAt, coolingSetup, coolingView, settledAt } from './rooms/systems/cooling.ts'
export {
  boxAtStage,
  circuitsAtStage,
  currentSdA,
  type ElectricsView,
  electricsAtStage,
  type OutputView,
  placingOf,
  type WireView,
} from './rooms/systems/electrics.ts'
export { type GapView, gapsAtStage } from './rooms/systems/gaps.ts'
export { type LoomView, loomView } from './rooms/systems/loom.ts'
export { type CoolerBeside, coolersSideBySide, decisionOfCoolers } from './rooms/systems/side-by-side.ts'
export { makeSystemsRoom, type SystemsRoom, type SystemsStage } from './rooms/systems/systems-room.ts'
export { LOCKING_MPS } from './rooms/track/advice.ts'
export { type DriftDays, driftDaysOf } from './rooms/track/drift-days.ts'
export type { DrivenLap } from './rooms/track/driven-laps.ts'
export { LAP_INPUT_WORDS, type LapInputKey } from './rooms/track/lap-input.ts'
export type { LapStage } from './rooms/track/lap-inputs.ts'
export { LEDGER_PARTS, type LedgerLine, type LedgerPart, type StageLedger, secondsLedger } from './rooms/track/lap-ledger.ts'
export { lapSpread, sidesSpread } from './rooms/track/lap-spread.ts'
export { type ClassBounds, leverBound } from './rooms/track/lever-bounds.ts'
export { type LogCarInputs, logCarOf, type PowerProof } from './rooms/track/log-proof.ts'
export { type PaddockEntry, parsePaddockLine } from './rooms/track/paddock-line.ts'
export { planTimeS } from './rooms/track/plan-time.ts'
export { asDriven, type LapPlan, lapChance, lapMiss, type StageLap, workLap } from './rooms/track/stage-lap.ts'
export { makeTrackRoom, planOfRoom, type RoomTyre, type TrackRoom, type TrackRoomStage } from './rooms/track/track-room.ts'
export type { RoomLap, RoomLog, RoomRun, RoomTrackSession, RoomWindow } from './rooms/track/track-sessions.ts'
export { controlTrack } from './rooms/track/track-sessions.ts'
export { parseTrackText, trackText } from './rooms/track/track-text.ts'
export { tyrePairs, WHEEL_KEYS, type WheelKey, type WheelPair } from './rooms/track/tyre-pairs.ts'
export type { PlannedLapLine, WishedLapPart } from './rooms/track/wished.ts'
export type { BallastCar, NoBallastCar } from './rooms/weight/ballast-car.ts'
export { type BoxState, boxState, boxValue } from './rooms/weight/box.ts'
export type { PredictedCentre, WeighingCentre } from './rooms/weight/centres.ts'
export type { ConditionDifference, Repeatability } from './rooms/weight/compare-weighings.ts'
export { boxDifferenceKg, parseEntryLine, type ReadEntry, type ReadMass, requirePartMass } from './rooms/weight/entry-line.ts'
export { writtenMass } from './rooms/weight/entry-mass.ts'
export type { LedgerScore } from './rooms/weight/ledger-score.ts'
export type { ReferenceCorners } from './rooms/weight/reference-corners.ts'
export { HEIGHT_BAND_M, type LikelyMass, type Moved, type MovedPlace, outByDay, type ScoreDetail } from './rooms/weight/score-detail.ts'
export { offShare, type TooMuchOff, whyTooMuchOff } from './rooms/weight/too-much-off.ts'
export { type GuessFigures, type LedgerLineFigures, makeWeightRoom, type WeighingFigures, type WeightRoom } from './rooms/weight/weight-room.ts'
export { averagePower } from './ruling/average-power.ts'
export { type BookChange, compareBooks, type RuleChange } from './ruling/class-change.ts'
export { massOverRuleKg, ruleRatio, soundAt } from './ruling/rule-ratio.ts'
export { issueField, sayIssue } from './say-issue.ts'
export { highsSolver } from './solver/highs-solver.ts'
export { buildAtStage, type Car, type CarOptions, type LaterRoad, type LaterValues, openCar, type SidedPair } from './stages/car.ts'
export { comingEvents, lastDayOf } from './stages/coming-events.ts'
export { perchesOf, placesOf, ratesOf } from './stages/corner-springs.ts'
export type { AdviceWords, Said } from './stages/define-advice.ts'
export { lineMass, scaleSdKg } from './stages/line-mass.ts'
export { type StageValue, WAITING, type Waiting } from './stages/stage-value.ts'
export type { Working, WorkingLine } from './stages/working-line.ts'
export { type ABAEffect, abaEffect } from './stats/a-b-a.ts'
export { type BestLaps, bestLaps, LAP_SCHOOL_WORDS, LAP_SCHOOLS, type LapSchool } from './stats/best-laps.ts'
export { compareLaps, type LapComparison, type LapVerdict } from './stats/compare-laps.ts'
export { lapsNeeded, smallestDifferenceS } from './stats/laps-needed.ts'
export { sectorMedians } from './stats/sector-medians.ts'
export type { HeldPanelAnswer } from './structure/held-panel.ts'
export { PANEL_KEYS, PANEL_SUPPORTS, type PanelKey, type PanelSupport } from './structure/panel-keys.ts'
export { PANEL_MATERIALS } from './structure/panel-materials.ts'
export { choosePanel, type PanelChoice, type PanelLoad } from './structure/panels.ts'
export { STRIP_SUPPORT_WORDS, STRIP_SUPPORTS, type StripSupport } from './structure/strip.ts'
export { type Corner, cornersOf, slowestIn } from './track/corners.ts'
export { LAP_HOLDER_WORDS, LAP_HOLDERS, type Lap, type LapHolder, lapOf } from './track/lap.ts'
export type { LapCar, PowerCurve } from './track/lap-car.ts'
export { changedLapCar, type LapChange, undoneLapChange } from './track/lap-change.ts'
export { fitGrip } from './track/lap-fit.ts'
export { LAP_LEVERS, type LapLever, type LeverAnswer, pullLever, type WishedPart, type WishedSet, wishedSets } from './track/lap-wish.ts'
export { LAP_STEP_WORDS, type LapStepKey, type LapWorth, lapStep, lapWorth } from './track/lap-worth.ts'
export { closureProblems, lengthOfTrack, type Segment, type TrackLine, type TrackShape, trackShape } from './track/track.ts'
export { type CoastingSamples, coastPairs, coastWindows } from './tracklog/coast-windows.ts'
export { type CornerSides, cornerSides, type TracedLap } from './tracklog/corner-sides.ts'
export { type DrivenRow, LapDriver } from './tracklog/drive-log.ts'
export { type DriverStretch, driverHeld } from './tracklog/driver-held.ts'
export { firstLook, type LogSeen } from './tracklog/first-look.ts'
export { lapGap } from './tracklog/lap-gap.ts'
export { alongTrace, gapByClock, gradeUnder, type LapSamples, type LapTrace, lapTrace } from './tracklog/lap-trace.ts'
export type { LoggedLap } from './tracklog/laps-from-log.ts'
export { lapsOfLog, type TrackPlace } from './tracklog/laps-of-log.ts'
export { axleTravel, type LoadPoint, type LoadSamples, loadPoints } from './tracklog/load-windows.ts'
export { type LogColumn, type LogColumnMapping, logColumns } from './tracklog/log-channels.ts'
export { BLOCK_SAMPLES, isGap } from './tracklog/log-columns.ts'
export { cornerGrip, type LapGripTrace, lapGripUsed } from './tracklog/log-grip.ts'
export { LOG_LEVELS, levelsOf } from './tracklog/log-levels.ts'
export { LogReader } from './tracklog/log-reader.ts'
export type { LogChannel, LogChannelRole, LogReport } from './tracklog/log-report.ts'
export { LOG_ROLES, type LogRole } from './tracklog/log-roles.ts'
export { type HeldSpeed, type LoggedTest, loggedTest } from './tracklog/logged-runs.ts'
export { type LoggerHealth, loggerWarnings } from './tracklog/logger-health.ts'
export { type Origin, toPlane } from './tracklog/plane.ts'
export {
  LEFT_OVER,
  type LeftOver,
  leftOverCauses,
  type PowerAgainst,
  type PowerPoint,
  type PowerWindow,
  type PullingSamples,
  powerAgainst,
  powerOfCurve,
  powerWindows,
} from './tracklog/power-windows.ts'
export { type TracedTrack, tracedTrack, USUAL_CUT_OFF_M } from './tracklog/traced-track.ts'
export { driftSeason } from './tyres/drift-season.ts'
export { readTread, treadAgainst } from './tyres/tread.ts'
export { COLD_SCHOOL_WORDS, COLD_SCHOOLS, type ColdSchool, coldForHotPa, hotGasK } from './tyres/tyre-pressure.ts'
export { fieldUnit } from './units/field-unit.ts'
export { decimalsForSpread, formatChance, formatNumber } from './units/format-number.ts'
export { type DecimalMark, parseNumber } from './units/parse-number.ts'
export { parseQuantity, type ReadQuantity } from './units/parse-quantity.ts'
export { chooseUnits, UNIT_CHOICES, UNIT_SETS, type UnitSetName } from './units/unit-set.ts'
export { findUnit, fromSi, litresFromM3, m3FromLitres, type QuantityKind, quantityOf, spreadFromSi, toSi } from './units/units.ts'
export { z } from './zod.ts'
