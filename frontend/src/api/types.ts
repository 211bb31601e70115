// The API's models. The server always sends every field, so what its defaults make optional is required here.
import type { components } from './schema'

type Complete<T> = T extends readonly (infer U)[]
  ? Complete<U>[]
  : T extends object
    ? { [K in keyof T]-?: Complete<Exclude<T[K], undefined>> }
    : T

type Schemas = components['schemas']
export type Job = Complete<Schemas['Job']>
export type Section = Complete<Schemas['Section']>
export type Circuit = Complete<Schemas['Circuit']>
export type Board = Complete<Schemas['Board']>
export type UsualAnswers = Complete<Schemas['UsualAnswers']>
export type TailsStretch = Complete<Schemas['TailsStretch']>
export type Guard = Complete<Schemas['Guard']>
export type RunGuards = Complete<Schemas['RunGuards']>
export type GuardView = Complete<Schemas['GuardView']>
export type Cable = Complete<Schemas['Cable']>
export type MakerCable = Complete<Schemas['MakerCable']>
export type ProfileNode = Complete<Schemas['ProfileNode']>
export type ProfileSection = Complete<Schemas['ProfileSection']>
export type LayoutChoice = Complete<Schemas['LayoutChoice']>
export type SearchResult = Complete<Schemas['SearchResult']>
export type FoundWay = Complete<Schemas['FoundWay']>
export type Reach = Complete<Schemas['Reach']>
export type UnknownFact = Complete<Schemas['UnknownFact']>
export type Remedy = Complete<Schemas['Remedy']>
export type MaterialsList = Complete<Schemas['MaterialsList']>
export type PriceList = Complete<Schemas['PriceList']>
export type PriceLine = Complete<Schemas['PriceLine']>
export type Reading = Complete<Schemas['Reading']>
export type Signature = Complete<Schemas['Signature']>
export type Inspection = Complete<Schemas['Inspection']>
export type Evaluation = Complete<Schemas['Evaluation']>
export type Finding = Complete<Schemas['Finding']>
export type WorkingLine = Complete<Schemas['WorkingLine']>
export type Step = Complete<Schemas['Step']>
export type Gap = Complete<Schemas['Gap']>
export type Track = Complete<Schemas['RunTrack']>
export type RunProfile = Complete<Schemas['RunProfile']>
export type SentencePart = Complete<Schemas['SentencePart']>
export type Alternative = Complete<Schemas['Alternative']>
export type JobState = Complete<Schemas['JobState']>
export type JobSummary = Complete<Schemas['JobSummary']>
export type Catalogue = Complete<Schemas['Catalogue']>
export type Option = Complete<Schemas['Option']>
export type Paper = Complete<Schemas['Paper']>
export type Stop = Schemas['Stop']
export type PhotoInfo = Complete<Schemas['PhotoInfo']>
export type OpenQuestion = Complete<Schemas['OpenQuestion']>
export type Appliance = Complete<Schemas['Appliance']>
export type HalfHourAnswer = Complete<Schemas['HalfHourAnswer']>
export type MeterShape = Complete<Schemas['MeterShape']>
export type WayOut = Complete<Schemas['WayOut']>
export type Change = Complete<Schemas['Change']>
export type SupplyDay = Complete<Schemas['SupplyDay']>
export type OperatorMatter = Complete<Schemas['OperatorMatter']>
export type OperatorForm = Complete<Schemas['OperatorForm']>
export type Letter = Complete<Schemas['Letter']>
export type DeskState = Complete<Schemas['DeskState']>
export type LinkInfo = Complete<Schemas['LinkInfo']>
export type MadeLink = Complete<Schemas['MadeLink']>
export type GivenAnswer = Complete<Schemas['GivenAnswer']>
export type HouseholderPage = Complete<Schemas['HouseholderPage']>
export type AskedQuestion = Complete<Schemas['AskedQuestion']>
export type ChargePointRecord = Complete<Schemas['ChargePointRecord']>
export type Defect = Complete<Schemas['Defect']>
export type ArrangementOptions = Complete<Schemas['ArrangementOptions']>
export type ArrangementOption = Complete<Schemas['ArrangementOption']>
export type Bench = Complete<Schemas['Bench']>
export type BenchResult = Complete<Schemas['BenchResult']>
export type Preset = Complete<Schemas['Preset']>
export type Soil = Complete<Schemas['Soil']>
export type ElectrodePlan = Complete<Schemas['ElectrodePlan']>
export type ElectrodeOutlook = Complete<Schemas['ElectrodeOutlook']>
export type ResidualChain = Complete<Schemas['ResidualChain']>
export type Waveform = Schemas['Waveform']
export type Problem = Complete<Schemas['Problem']>
export type Verdict = Schemas['Verdict']
export type Stage = Schemas['Stage']
export type ChoiceKey = NonNullable<SentencePart['choice']>
export type FittingReason = Complete<Schemas['FittingReason']>
export type IssueState = Complete<Schemas['IssueState']>
