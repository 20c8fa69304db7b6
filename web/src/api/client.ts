import createClient from 'openapi-fetch'
import { refusal } from '../say/refusals'
import { noted } from '../shared/acts'
import { notedPages } from '../shared/newerPages'
import type { components, paths } from './schema'

/** What the server sends always holds every field; the schema only says which may be left out. */
type Whole<T> = T extends readonly unknown[]
  ? { [K in keyof T]: Whole<T[K]> }
  : T extends object
    ? { [K in keyof T]-?: Whole<T[K]> }
    : T

export type Schemas = components['schemas']

export type Opened = Whole<Schemas['Opened']>
export type PartAdded = Whole<Schemas['PartAdded']>
export type Assessment = Whole<Schemas['Assessment']>
export type BuyingList = Whole<Schemas['BuyingList']>
export type Wanted = BuyingList['wanted'][number]
export type Freight = BuyingList['freights'][number]
export type VariantComparison = Whole<Schemas['VariantComparison']>
export type Beginnings = Whole<Schemas['Beginnings']>
export type Candidate = Whole<Schemas['Candidate']>
export type Choosing = Schemas['Choosing']
export type Comparison = Whole<Schemas['Comparison']>
export type Faces = NonNullable<Choosing['faces']>[number]
export type Replacements = Whole<Schemas['Replacements']>
export type Correcting = Schemas['Correcting']
export type Cut = Schemas['CutDoc']
export type CutStep = Whole<Schemas['CutStep']>
export type CutPlan = Whole<Schemas['CutPlan']>
export type CutPiece = CutPlan['pieces'][number]
export type NotLaid = Whole<Schemas['NotLaid']>
export type MapPoint = Whole<Schemas['MapPoint']>
export type SpanChordMap = Whole<Schemas['SpanChordMap']>
export type StartDoc = Omit<Schemas['MapAsked'], 'spans_mm' | 'chords_mm' | 'wing_thickness_mm'>
export type SuggestedTarget = Schemas['TargetDoc']
export type DonorPart = Whole<Schemas['DonorPart']>
export type DayTold = Whole<Schemas['DayTold']>
export type Damp = Whole<Schemas['Damp']>
export type Doubt = Whole<Schemas['Doubt']>
export type DrawerThing = Whole<Schemas['DrawerThing']>
export type Folded = Whole<Schemas['Folded']>
export type NewFold = Schemas['FoldedBoxDoc'] | Schemas['FoldedWingDoc'] | Schemas['FoldedSidesDoc']
export type ForecastPoint = Whole<Schemas['Point']>
export type Group = Schemas['Group']
export type NewLot = Schemas['NewLot']
export type NewShape = Schemas['NewShape']
export type NewThing = Schemas['NewThing']
export type Outlines = Whole<Schemas['Outlines']>
export type Placing = Schemas['PlacingDoc']
export type School = Assessment['beam']['schools'][number]
export type RackLot = Whole<Schemas['RackLot']>
export type Shopping = Whole<Schemas['Shopping']>
export type Build = Whole<Schemas['Build']>
export type Body = Build['bodies'][number]
export type BuildPatch = Schemas['BuildPatch']
export type Part = Whole<Schemas['Part']>
export type PartMass = Whole<Schemas['PartMass']>
export type Joint = Whole<Schemas['JointTimes']>
export type JointTimes = Schemas['JointTimesDoc']
export type GlueCaution = Schemas['Caution']
export type Kind = Schemas['Kind']
export type Preview = Schemas['Preview']
export type Measure = Schemas['FigureOf']
export type TakenBack = Whole<Schemas['TakenBack']>
export type Touched = Whole<Schemas['Touched']>
export type Understood = Whole<Schemas['Understood']>
export type ListPreview = Whole<Schemas['ListPreview']>
export type Loadout = Whole<Schemas['LoadoutAnswers']>
export type Lot = Whole<Schemas['Lot']>
export type Mark = Schemas['Mark']
export type Mend = Whole<Schemas['Mend']>
export type Meanwhile = Whole<Schemas['Meanwhile']>
export type NewCheck = Schemas['NewCheck']
export type CodeShown = Whole<Schemas['CodeShown']>
export type Device = Whole<Schemas['Device']>
export type DoorState = Whole<Schemas['DoorState']>
export type Drive = Whole<Schemas['Power']>
export type Run = Drive['runs'][number]
export type RunPoint = Run['points'][number]
export type Flight = Drive['flights'][number]
export type Choice = Whole<Schemas['TriedDrive']>
export type Predicted = Whole<Schemas['Predicted']>
export type Cost = Whole<Schemas['Cost']>
export type OneMore = Whole<Schemas['OneMore']>
export type StandState = Whole<Schemas['StandState']>
export type Trying = Schemas['Trying']
export type Remedies = Whole<Schemas['Remedies']>
export type Saved = Whole<Schemas['Saved']>
export type AtTheField = Whole<Schemas['AtTheField']>
export type Compared = Whole<Schemas['Compared']>
export type Control = Whole<Schemas['Control']>
export type ControlKind = Schemas['ControlKind']
export type ControlTold = Whole<Schemas['ControlTold']>
export type LastChange = Whole<Schemas['LastChange']>
export type LookingBack = Whole<Schemas['LookingBack']>
export type LoadoutField = Whole<Schemas['LoadoutField']>
export type NewControl = Schemas['NewControl']
export type HangFlaw = Schemas['HangFlaw']
export type OddOutline = Schemas['OddOutline']
export type OutlineFlaw = Whole<Schemas['OutlineFlaw']>
export type Missing = Schemas['Missing']
export type Since = Whole<Schemas['Since']>
export type Unfit = Schemas['Unfit']
export type NoteKind = Schemas['NoteKind']
export type ReadyLine = Whole<Schemas['ReadyLine']>
export type Seen = Schemas['Seen']
export type Setting = Whole<Schemas['Setting']>
export type Shifted = Whole<Schemas['Shifted']>
export type SchoolKind = Schemas['SchoolKind']
export type WhatIf = Schemas['WhatIf']
export type WingPlace = Whole<Schemas['WingPlace']>
export type NewBuild = Schemas['NewBuild']
export type NewPart = Schemas['NewPart']
export type NewJoint = Schemas['NewJoint']
export type NewWeighing = Omit<Schemas['NewWeighing'], 'note' | 'unit'> & {
  unit?: string
}
export type Outline = Whole<Schemas['Outline']>
export type Pan = Whole<Schemas['Pan']>
export type PanState = Whole<Schemas['PanState']>
export type FieldFault = Whole<Schemas['FieldFault']>
export type ListFault = Schemas['Fault']
export type Problem = Omit<Schemas['Problem'], 'faults'> & { faults?: FieldFault[] }
export type Recorded = Whole<Schemas['Recorded']>
export type Shelved = Whole<Schemas['Shelved']>
export type Slip = Whole<Schemas['Slip']>
export type Surface = Whole<Schemas['Surface']>
export type Target = Whole<Schemas['Target']>
export type TargetAnswer = Loadout['answers'][number]
export type TargetKind = Schemas['TargetKind']
export type Trait = Schemas['Trait']
export type Truth = Whole<Schemas['Truth']>
export type Twin = Whole<Schemas['Twin']>
export type Weighing = Whole<Schemas['Weighing']>
export type Word = Schemas['Word']

/** What a page hears when the workshop has not let this device in, or has shut it out. */
export const SHUT_OUT = 'oaken-scale-shut-out'

export const api = createClient<paths>({ baseUrl: '' })
api.use({
  async onRequest({ request }) {
    await noted(request)
    return undefined
  },
  onResponse({ response }) {
    notedPages(response)
    if (response.status === 401) window.dispatchEvent(new Event(SHUT_OUT))
    return undefined
  },
})

/** A request that the server refused, in its words. */
export class RefusedError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem | undefined,
  ) {
    super(problem ? refusal(problem) : `The server answered ${status}`)
  }
}

interface Outcome<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of an answered request. Throws RefusedError, or TypeError when nothing answered. */
export async function answered<T>(request: Promise<Outcome<unknown>>): Promise<T> {
  const { data, error, response } = await request
  if (!response.ok) throw new RefusedError(response.status, error as Problem | undefined)
  return data as T
}
