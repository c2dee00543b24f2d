import type { Operation, Schemas } from '@/api/client'
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { QUESTIONS } from './questions'

/** Answers to the questions of the guided start, wherever they are asked. */
export function useAnswers() {
  const plan = usePlan()
  const topicsOf = (question: string) => plan.rig!.topics.filter((t) => t.question === question)

  /** What is shown is right: what was assumed of it is stated now. What is not entered stays missing. */
  function confirmed(topics: Schemas['TopicView'][]): Operation[] {
    const assumed = topics.filter((t) => t.status === 'assumed')
    const sources = assumed.some((t) => t.key === 'charging') ? plan.document.sources : []
    return [
      ...assumed.map((t) => replaced(`/stated/${t.key}`, true)),
      ...sources.flatMap((s, i) => (s.assumed ? [replaced(`/sources/${i}/assumed`, false)] : [])),
    ]
  }

  /** The owner does not know: what stands there is assumed. */
  function unknown(question: string): Operation[] {
    return topicsOf(question).map((t) => replaced(`/stated/${t.key}`, false))
  }

  const replaced = (path: string, value: unknown): Operation => ({ op: 'replace', path, value })

  /** Confirm a question, or leave it open, and remember which one comes next; empty for none. */
  function answer(question: string, known: boolean, next?: string): Promise<void> {
    const operations = known ? confirmed(topicsOf(question)) : unknown(question)
    if (next !== undefined && plan.document.guide !== next)
      operations.push(replaced('/guide', next))
    if (!operations.length) return Promise.resolve()
    const name = QUESTIONS[question]!.name
    const label = known
      ? phrase('questions.start.answer', { name })
      : phrase('questions.start.not_known', { name })
    return plan.edit(label, ...operations)
  }

  /** Confirm one topic, and none of those that the same question asks for. */
  function confirm(topic: Schemas['TopicView']): Promise<void> {
    return plan.edit(phrase('questions.start.answer', { name: topic.name }), ...confirmed([topic]))
  }

  return { topicsOf, answer, confirm }
}
