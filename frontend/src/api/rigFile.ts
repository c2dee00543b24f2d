import type { components } from './rig-file'

type Parts = components['schemas']

/** The rig file as the server holds it: every field is there, numbers in SI. */
export type RigFile = Parts['RigFile']
export type Candidate = Parts['CandidatePart']
export type DayType = Parts['DayTypePart']
export type OwnModel = Parts['ModelPart']
export type Times = Parts['TimesPart']
export type Load = Parts['LoadPart']
/** Where a battery stands in the locker [mm]. */
export type Place = Parts['PlacePart']
/** A source of charge; which fields count depends on its kind. */
export type Source = Parts['SourcePart']
