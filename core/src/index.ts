export { bankOf } from "./board/bank";
export { type BaselineValue, baselineOfBrothers, baselineOfUnits, type GoodReading } from "./board/baseline";
export * from "./board/board";
export * from "./board/boardType";
export { type CanFit, type CanPose, canFit, type FitQuestion, type Obstacle } from "./board/canFit";
export {
  type ConverterDescription,
  hasPulses,
  type OutputConverter,
  outputConverters,
  unknownConverter,
} from "./board/converterDescription";
export { type DeviceTest, type DeviceTestCode, deviceTestOf, deviceTests } from "./board/deviceTests";
export { lidHeightAtMetres } from "./board/lidHeight";
export { type PhotoAlignment, photoPlacement, type Similarity } from "./board/photoPlacement";
export * from "./board/placementFit";
export { railBand } from "./board/railBand";
export type { RailRules } from "./board/railRules";
export { rippleLimitVolts } from "./board/rippleLimit";
export * from "./board/sections";
export { walkOrder } from "./board/walkOrder";
export { canImpedance, pseudoRatedRippleAmpsRms } from "./capacitors/canImpedance";
export { canSurfaceSquareMetres } from "./capacitors/canSurface";
export {
  type CapacitorClass,
  capacitorClasses,
  hasPolymer,
  type LiquidCapacitorClass,
} from "./capacitors/capacitorClass";
export { compensatedEsr } from "./capacitors/compensatedEsr";
export { dissipationFactorLimitRatio } from "./capacitors/dissipationFactorLimit";
export { type EsrSource, type ExpectedEsr, expectedEsr } from "./capacitors/expectedEsr";
export {
  type EsrSourceSchool,
  expectedEsrOfPart,
  type PartExpectation,
  partForSchool,
} from "./capacitors/expectedEsrOfPart";
export { leakageLimitAmps } from "./capacitors/leakageLimit";
export { rippleFrequencyMultiplier } from "./capacitors/rippleFrequencyMultiplier";
export { seriesResistanceTemperatureFactor } from "./capacitors/seriesResistanceTemperatureFactor";
export { type TesterMode, testerReading } from "./capacitors/testerReading";
export { type BetaInterval, betaInterval, compareShares } from "./casebook/betaInterval";
export { type Calibration, calibration, type Forecast } from "./casebook/calibration";
export * from "./casebook/closedCase";
export type { InspectedPoint } from "./casebook/inspectedSurvival";
export type { SurvivalCurve } from "./casebook/kaplanMeier";
export { type PlaceCount, type PlacePattern, placePatterns } from "./casebook/placePatterns";
export { type SeriesLife, type SeriesPart, seriesLife, shorterLifeProbability } from "./casebook/seriesLife";
export type { NoLife, WeibullLife } from "./casebook/weibullFit";
export { type JudgementConstants, judgementConstants, type SchoolName } from "./constants/judgementConstants";
export { tradeConstants } from "./constants/tradeConstants";
export { coreVersion } from "./coreVersion";
export { absorptionRecovery } from "./discharge/absorptionRecovery";
export {
  type ChargeHazard,
  chargeHazard,
  type Discharge,
  decayedVolts,
  discharge,
  storedEnergyJoules,
} from "./discharge/discharge";
export { type DrainCourse, type DrainLoad, drainCourse, type LampModel, lampFromRating } from "./discharge/drainPath";
export { type DrainConnection, predictedDrainVolts } from "./discharge/drainPrediction";
export { type JobStrategies, jobStrategies, type StrategyGap, type StrategyQuestion } from "./economics/jobStrategies";
export * from "./economics/quote";
export * from "./economics/quote";
export { type RepairBalance, type RepairVerdict, repairBalance } from "./economics/repairBalance";
export {
  type ClosedJob,
  type Estimate,
  type EstimateRules,
  type EstimateSource,
  type QuoteDrift,
  quoteDrift,
  repairEstimate,
} from "./economics/repairEstimate";
export {
  compareStrategies,
  type RepairStrategy,
  repairStrategies,
  type StrategyComparison,
  type StrategyPart,
} from "./economics/repairStrategy";
export { type StockDeadline, stockDeadline, type WantedPart } from "./economics/stockDeadline";
export * from "./economics/warranty";
export { NoBracketError, OutOfRangeError } from "./errors";
export * from "./facts/captures";
export * from "./facts/chargeFacts";
export { type DeviceKind, deviceKinds, hasBacklight } from "./facts/deviceKinds";
export { type DeviceProfile, deviceProfiles, type Topology, topologies, type UsualRail } from "./facts/deviceProfiles";
export * from "./facts/drainKit";
export * from "./facts/jobActs";

export * from "./facts/jobFacts";
export * from "./facts/jobRules";
export * from "./facts/overrules";
export * from "./facts/powerEvents";
export { doneSteps, lastAct, partBeside, standingPart, stepsOf } from "./facts/reworkTicks";
export { faultFacts, roundNumber, roundStart, roundView } from "./facts/rounds";
export * from "./facts/shopRecord";
export * from "./facts/teardown";
export * from "./facts/visualSigns";
export { type CascadeCheck, cascadeChecks, overVoltageCheck } from "./faults/cascadeChecks";
export { priorsForDevice } from "./faults/devicePriors";
export { type DrainClue, type DrainClueCode, drainClues } from "./faults/drainClues";
export { explainJob, type JobExplanation } from "./faults/explainJob";
export { type Explanation, type FaultEvidence, type FaultRanking, rankExplanations } from "./faults/explanations";
export { faultEvidence } from "./faults/faultEvidence";
export { type Fault, type FaultKnowledge, faultKnowledge, knowledgeProblems } from "./faults/faultKnowledge";
export { findingGains } from "./faults/findingGains";
export { type Finding, isTestFinding, type TestFinding, testFindings } from "./faults/findings";
export {
  checksFor,
  type FirstCheck,
  firstChecks,
  firstSuspects,
  type Stage,
  type Suspect,
  stages,
} from "./faults/firstSuspects";
export * from "./faults/headline";
export { type RecordedChange, recordedKnowledge } from "./faults/recordedKnowledge";
export { symptomCodes, symptomGroups, symptomLabels } from "./faults/symptoms";
export { bankImpedance } from "./incircuit/bankImpedance";
export { bankIntervals, type PartInterval } from "./incircuit/bankIntervals";
export { type BankStates, bankStates } from "./incircuit/bankStates";
export { maskingLimit, maskingLimitOfResistances } from "./incircuit/maskingLimit";
export { type CircuitBranch, drivingPointImpedance, voltsUnderTestCurrent } from "./incircuit/nodalAnalysis";
export { leastInsulationOhms, protectionClassOf } from "./job/earthBond";
export * from "./job/familyFindings";
export * from "./job/familyGrid";
export {
  connectedAgainstGate,
  type FirstPower,
  firstPower,
  isBulk,
  type ShutCode,
  type Shutter,
} from "./job/firstPower";
export { jobChargeState, jobChargeStates } from "./job/jobCharge";
export { type JobChange, JobJudge, type JobJudgement } from "./job/jobJudge";
export { type LensProgress, type LensState, lensProgress, lensReached } from "./job/lensProgress";
export { type OpenPoint, type OpenPointCode, type PointWeight, settledIn, weightOf } from "./job/openPoint";
export { isRunSinceLastAct, openPoints } from "./job/openPoints";
export { hasBoardRecord } from "./job/partPoints";
export {
  hotRails,
  type ProofReason,
  type ProofStep,
  type ProofStepState,
  proofPlan,
  startCondition,
  startsShown,
} from "./job/proofPlan";
export { railNetlist } from "./job/railNetlist";
export { proofOf } from "./job/railPoints";
export * from "./job/reminders";
export { baselineLikelihood } from "./judgement/baselineLikelihood";
export { type EntryQuestion, entryQuestions } from "./judgement/entryQuestions";
export { esrSheet, type SheetCell, sheetMicrofarads, sheetVolts } from "./judgement/esrSheet";
export { type Evidence, evidenceLikelihood } from "./judgement/evidenceLikelihood";
export { type GradeFlag, gradePart, type PartGrade } from "./judgement/gradePart";
export {
  type BoardFacts,
  type JudgedBoard,
  type JudgedPart,
  judgeBoard,
  judgePosition,
  rejudgeBoard,
} from "./judgement/judgeBoard";
export {
  type DeviceJudgement,
  type DeviceLine,
  type DeviceTrap,
  judgeDevice,
  judgeDevices,
  type TestOutcome,
} from "./judgement/judgeDevice";
export { judgePart } from "./judgement/judgePart";
export { needsReplacement } from "./judgement/needsReplacement";
export { posteriorMeanProbability } from "./judgement/posteriorMean";
export { type ReplacementStrategy, replacementSet } from "./judgement/replacementSet";
export { evidenceFromSigns } from "./judgement/signEvidence";
export { tunedConstants } from "./judgement/tunedConstants";
export * from "./judgement/verdict";
export { lifeFromCoreTemperature } from "./life/lifeFromCore";
export { lifeScatter } from "./life/lifeScatter";
export { lifeByTenKelvinRule } from "./life/lifeTenKelvin";
export { lifeWithAgeing } from "./life/lifeWithAgeing";
export { lifeWithRippleHeating } from "./life/lifeWithRipple";
export { type MissionLife, type MissionSegment, missionLife } from "./life/missionLife";
export { type MissionProfile, missionProfile, type Purpose } from "./life/missionProfile";
export { type RepairPolicy, returnChances } from "./life/returnChance";
export {
  type ExpectationBasis,
  type ExpectedReading,
  expectedReading,
  type ProbeQuestion,
} from "./measuring/expectedReading";
export { meterRange } from "./measuring/meterRange";
export { nextTargets } from "./measuring/nextTargets";
export {
  type LowEnergyTest,
  type ProbeCaution,
  type ProbeInstrument,
  type ProbePoint,
  probePoints,
} from "./measuring/probePoints";
export type { ProposedTarget } from "./measuring/proposal";
export { liftingMinutes, probingMinutes } from "./measuring/proposal";
export { areTipsFirst } from "./measuring/tipsFirst";
export { type UnitSlip, unitSlip } from "./measuring/unitSlip";
export { entropyBits } from "./numerics/entropyBits";
export { median } from "./numerics/median";
export { percentile } from "./numerics/percentile";
export { seededRandom } from "./numerics/seededRandom";
export { actMinutes } from "./practice/actMinutes";
export * from "./practice/debrief";
export { itemChances, outsideItem } from "./practice/itemChances";
export * from "./practice/learner";
export * from "./practice/lessonModels";
export * from "./practice/penalties";
export { type PracticeScore, practiceScore, type ScoreQuestion } from "./practice/practiceScore";
export { fittedRippleVolts } from "./proof/asNewRipple";
export { type BeforeAfter, beforeAfter } from "./proof/beforeAfter";
export { startsToShow } from "./proof/coldStarts";
export { type EarthAndInsulation, earthAndInsulation, type ProtectionClass } from "./proof/earthAndInsulation";
export { type HeatCurve, heatCurves } from "./proof/heatCurves";
export { type LabelLimits, labelLimits } from "./proof/labelLimits";
export { likelyRail } from "./proof/likelyRail";
export { type LoadLine, loadLine } from "./proof/loadLine";
export { type LoadFault, type LoadStep, loadedRails, loadFault, loadPlan } from "./proof/loadPlan";
export { loadStepCourse, loadStepResponse } from "./proof/loadStep";
export { measuredHoldUp } from "./proof/measuredHoldUp";
export { type OutputDroop, outputDroop } from "./proof/outputDroop";
export { type OutputShare, outputShares } from "./proof/outputShare";
export { type CurvePoint, leadOhmsOf, type RailCurve, railCurve } from "./proof/railCurve";
export { type CheckState, type RailCheck, type RailProof, railProof } from "./proof/railProof";
export { railStepBound } from "./proof/railStepBound";
export { type SettleFlag, type ThermalSettle, thermalSettle } from "./proof/thermalSettle";
export { type Timing, type TimingState, timingRigOf, timings } from "./proof/timings";
export {
  type FormatOptions,
  type FormattedQuantity,
  formatMarkedCapacitance,
  formatQuantity,
} from "./quantities/formatQuantity";
export { type ParsedQuantity, type ParseFailure, parseQuantity } from "./quantities/parseQuantity";
export { printedPrefix, type SiPrefix, siPrefixes } from "./quantities/siPrefixes";
export { type Unit, unitFacts } from "./quantities/units";
export { type Completion, completeEntry } from "./quickEntry/completeEntry";
export * from "./quickEntry/parseOwnPart";
export {
  type EntryProblem,
  type EntryProblemCode,
  longestRange,
  type ParsedPartEntry,
  type PartEntry,
  parsePartEntry,
} from "./quickEntry/parsePartEntry";
export { printPartEntry } from "./quickEntry/printPartEntry";
export { combineRepeats } from "./readings/combineRepeats";
export * from "./readings/factMoment";
export { type Falsifier, falsifiedBy } from "./readings/falsified";
export * from "./readings/reading";
export { airAround } from "./replacement/airAround";
export {
  type BankChoice,
  type BankFilling,
  type BankPlace,
  type BankQuestion,
  chooseBank,
} from "./replacement/bankChoice";
export { bankOfTwoKinds, mergedBanks, type TwoKinds } from "./replacement/bankOfTwoKinds";
export { asCandidate, bankCandidates, bankParts, bankQuestion } from "./replacement/bankQuestion";
export { type InrushNote, inrushNote } from "./replacement/bulkWindow";
export { bankReach, type PartReach, partReach } from "./replacement/catalogueReach";
export { checkReplacement } from "./replacement/checkReplacement";
export {
  type CatalogueComponent,
  type ComparedRating,
  type ComponentRatings,
  type ComponentVerdict,
  compareComponents,
  type RankedComponent,
  type RatingVerdict,
  rankComponents,
} from "./replacement/compareComponents";
export {
  type ComponentKind,
  type ComponentRating,
  componentKinds,
  componentKindsOf,
  componentRatings,
  type RatingName,
  ratingNames,
} from "./replacement/componentRatings";
export { type ControlSupply, controlSupplyStart } from "./replacement/controlSupplyStart";
export { esrZero } from "./replacement/esrZero";
export { holdUpCapacitanceFarads } from "./replacement/holdUpCapacitance";
export type { Limit, LimitSource } from "./replacement/limit";
export { oldPartLifeHours } from "./replacement/oldPartLife";
export { parallelParts } from "./replacement/parallelParts";
export { type PlaceFit, type PlaceFits, placeFits } from "./replacement/placeFit";
export { neighbours, placeRoom, ventRoom } from "./replacement/placeRoom";
export { doPolaritiesAgree } from "./replacement/polarityCheck";
export {
  type CataloguePart,
  isOverridable,
  type KnownPart,
  limitRejections,
  type RankedReplacement,
  type Rejection,
  type RejectionCode,
  type ReplacementRanking,
  rankReplacements,
} from "./replacement/rankReplacements";
export { replacementRatedVoltage, type VoltageSchool } from "./replacement/ratedVoltage";
export {
  type FirstReason,
  firstReason,
  type OrderedReplacement,
  orderReplacements,
  type ReplacementOrder,
  replacementOrders,
} from "./replacement/replacementOrder";
export {
  type CapacitanceSchool,
  noOverrides,
  type Requirement,
  type RequirementOverrides,
  replacementRequirement,
} from "./replacement/requirement";
export type { RippleNeed } from "./replacement/rippleNeed";
export { type SharedPlace, type SharedQuestion, sharedQuestions } from "./replacement/sharedPlace";
export type { Clearances, Surroundings } from "./replacement/surroundings";
export { type BoardDamage, boardDamages, type DamageState } from "./rework/boardDamage";
export { bridgingWire, traceAmps, traceWidthMetres, wireAmps } from "./rework/bridging";
export { type HeatAdvice, type HeatHelp, heatAdvice, type SolderMelt, usualLeadMetres } from "./rework/heatAdvice";
export { type OrderReason, reworkOrder, type WorkStep } from "./rework/reworkOrder";
export { leakSigns, type WorkCheck, workChecks } from "./rework/workChecks";
export { boostBulk } from "./ripple/boostBulk";
export {
  type BulkEffect,
  type BulkPrediction,
  type BulkQuestion,
  type BulkState,
  isTooWeak,
  predictBulk,
} from "./ripple/bulkPrediction";
export {
  type Assumption,
  converterSource,
  type DescribedSource,
  type ImpossibleCode,
  ImpossibleConverterError,
} from "./ripple/converter";
export { equivalentRippleCurrent } from "./ripple/equivalentRippleCurrent";
export { filterHarmonics } from "./ripple/filterHarmonics";
export type { FilterCapacitor, FilterNetwork } from "./ripple/filterNetwork";
export { type BulkCircuit, type BulkCourse, mainsBulk } from "./ripple/mainsBulk";
export { primaryPulseAmpsRms } from "./ripple/primaryPulses";
export * from "./ripple/railRipple";
export { regulatedRipple } from "./ripple/regulatedRipple";
export { type PredictionQuestion, predictRipple, type RipplePrediction, sweepLoads } from "./ripple/ripplePrediction";
export * from "./ripple/sourceCurrent";
export { spiceNetlist } from "./ripple/spiceNetlist";
export { type RippleCourse, type SteadyRipple, steadyRipple } from "./ripple/steadyRipple";
export { converterOf } from "./ripple/usualConverter";
export { proposedRun } from "./runs/proposedRun";
export {
  isRunOver,
  loadedSeconds,
  type RunEvent,
  type RunEventKind,
  type RunState,
  type RunStateName,
  runEventKinds,
  runState,
  type StepFinding,
  secondsLeft,
  stepFinding,
} from "./runs/runCourse";
export { type EndAct, emptiedVolts, endOrder, mayGoOn, ownTimeouts, type RestartFinding } from "./runs/runOrder";
export {
  leastAmps,
  planInstruments,
  type RunKind,
  type RunPlan,
  type RunPlanFault,
  type RunRail,
  type RunSpot,
  type RunStep,
  runKinds,
  runPlanFault,
  runSeconds,
} from "./runs/runPlan";
export {
  type RunSample,
  type RunStop,
  type StopCode,
  setAmpsOf,
  stopBecause,
  stopCodes,
  watchRun,
} from "./runs/watchRun";
export { chargeDanger, type DangerLevel, dangerLevels, fallOfKilogramMetres } from "./safety/chargeDanger";
export * from "./safety/chargeWatch";
export { type DischargeResistor, dischargeResistor } from "./safety/dischargeResistor";
export { type DrainPlan, type DrainRefusal, drainPlan } from "./safety/drainPlan";
export * from "./safety/energyStores";
export { type GateDemand, type GateFinding, gateFinding, gateItemRules } from "./safety/gateChecks";
export { type MainsInrush, mainsInrush, stiffInrush } from "./safety/inrush";
export {
  type DcFeed,
  dcFeedFor,
  type LimiterSetting,
  limiterFor,
  type SeriesLamp,
  seriesLampFor,
} from "./safety/lampAndLimiter";
export * from "./safety/powerGate";
export { isUnderDrain, storeOfPosition, unnamedHolders } from "./safety/storeCoverage";
export { hasBoostStage, type UnitRating, unitRating } from "./safety/unitRating";
export { type VoltsFirst, voltsFirst } from "./safety/voltsFirst";
export { type CatalogueEntry, entryDoubts, type PrintedRatings } from "./stock/catalogueEntry";
export {
  type CatalogueColumn,
  catalogueCells,
  catalogueColumns,
  catalogueUnits,
  type DecimalMark,
  entryKey,
  exportHeaders,
  type FileMapping,
  type MappedHeader,
  mapHeader,
  neededColumns,
  type RowFault,
  type RowFaultCode,
  readCatalogueRow,
} from "./stock/catalogueRows";
export {
  type ComponentColumn,
  type ComponentEntry,
  type ComponentFault,
  componentCells,
  componentDoubts,
  componentHeader,
  componentHeaders,
  componentKey,
  mapComponentHeader,
  readComponentRow,
} from "./stock/componentRows";
export { type HeapDoubt, heapOffer, type LooseHeap } from "./stock/heapOffer";
export { type LongOrder, splitLongOrder } from "./stock/longOrder";
export {
  type LooseCharge,
  type LooseChargeAct,
  looseCharge,
  looseChargeActs,
  mayGoInDrawer,
} from "./stock/looseCharge";
export { type LooseGap, loosePart } from "./stock/loosePart";
export {
  esrVariation,
  isMeasured,
  mostEsrVariation,
  type PieceDoubt,
  pieceDoubts,
  type SampledPiece,
} from "./stock/lotSample";
export {
  type MovementKind,
  type MovementRefusal,
  movementKinds,
  movementOf,
  type StockMovement,
  type StockSums,
  stockSums,
} from "./stock/movements";
export { type OpenPlace, type OrderNeed, orderNeeds, type PartMovement } from "./stock/orderNeeds";
export type { Supplier, SupplierOffer } from "./stock/orderSplit";
export { type LotDecision, receiveLot } from "./stock/receiveLot";
export { type ReformAdvice, type ReformReading, reformAdvice, reformPlan } from "./stock/reformPlan";
export { type LooseReadings, type SalvageDoubt, salvageVerdict } from "./stock/salvage";
export { type ShelfNeed, shelfNeed, stockAgeYears } from "./stock/shelfAge";
export { analyseCapture } from "./waveform/analyseCapture";
export {
  type CaptureProblem,
  type CaptureProblemCode,
  CaptureReader,
  isCaptureProblem,
  isIntervalOdd,
  mostCaptureSamples,
  type ReadCapture,
} from "./waveform/captureReader";
export { type CaptureMapping, type CaptureShape, captureShape } from "./waveform/captureShape";
export { type DrawnColumn, decimate } from "./waveform/decimate";
export {
  meterBandwidthHertz,
  peakToPeakOfSineRms,
  type RippleAttribution,
  type RippleCause,
  type RippleCauseShare,
  rippleAttribution,
} from "./waveform/rippleAttribution";
export {
  fedRail,
  type RailRippleFinding,
  rippleFindings,
  usualCapacitorCelsius,
  withCapturedFrequency,
} from "./waveform/rippleFindings";
