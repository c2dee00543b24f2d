import { phrase } from '@/phrases/shared'
import createClient from 'openapi-fetch'
import { asking } from './offline'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type RigAnswer = Schemas['RigAnswer']
type AnyRigView = Schemas['RigView']
type Part = 'day' | 'need' | 'banks' | 'compare' | 'voltages' | 'seasons' | 'sources'
/** The rig as the screen of the stop that is open sees it: the parts that this screen shows are there. */
export type RigView = Omit<AnyRigView, Part> & { [P in Part]: NonNullable<AnyRigView[P]> }
export type FigureView = Schemas['FigureView']
export type TokenView = Schemas['TokenView']
export type FindingView = Schemas['FindingView']
export type CandidateView = Schemas['CandidateView']
export type CardView = Schemas['CardView']
export type WorkingsView = Schemas['WorkingsView']
export type ReferenceView = Schemas['ReferenceView']
export type Operation = Schemas['Operation']
export type Problem = Schemas['ProblemView']
export type Interpretation = Schemas['InterpretationView']
export type SeriesView = Schemas['SeriesView']
export type ComparedBankView = Schemas['ComparedBankView']

export const api = createClient<paths>({ baseUrl: '/', fetch: asking })

const UNREACHABLE = phrase('shared.client.program_answer_changes_kept')

/** What a refused or unanswered request has to say. */
export function problemsOf(error: unknown): Problem[] {
  const found = (error as { problems?: Problem[] } | undefined)?.problems
  return found?.length ? found : [{ path: '', message: UNREACHABLE, interpretations: [] }]
}
