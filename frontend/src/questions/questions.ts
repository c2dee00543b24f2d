import { phrase } from '@/phrases/questions'
import { defineAsyncComponent, type Component } from 'vue'

export interface Question {
  key: string
  /** In a few words, for lists. */
  name: string
  asks: string
  hint: string
  screen: Component
  with?: Record<string, unknown>
}

const lazy = (load: () => Promise<{ default: Component }>) => defineAsyncComponent(load)
const run = lazy(() => import('./QuestionRun.vue'))

/** The questions of the guided start, by their keys in the rig file. */
export const QUESTIONS: Record<string, Omit<Question, 'key'>> = {
  what: {
    name: phrase('questions.names.what'),
    asks: phrase('questions.asks.what'),
    hint: phrase('questions.hints.what'),
    screen: lazy(() => import('./WhatOfRig.vue')),
  },
  use: {
    name: phrase('questions.names.use'),
    asks: phrase('questions.asks.use'),
    hint: phrase('questions.hints.use'),
    screen: lazy(() => import('./QuestionUse.vue')),
  },
  run: {
    name: phrase('questions.names.run'),
    asks: phrase('questions.asks.run'),
    hint: phrase('questions.hints.run'),
    screen: run,
  },
  big: {
    name: phrase('questions.names.big'),
    asks: phrase('questions.asks.big'),
    hint: phrase('questions.hints.big'),
    screen: run,
    with: { big: true },
  },
  old: {
    name: phrase('questions.names.old'),
    asks: phrase('questions.asks.old'),
    hint: phrase('questions.hints.old'),
    screen: lazy(() => import('./QuestionOld.vue')),
  },
  charge: {
    name: phrase('questions.names.charge'),
    asks: phrase('questions.asks.charge'),
    hint: phrase('questions.hints.charge'),
    screen: lazy(() => import('./QuestionCharge.vue')),
  },
  hook_up: {
    name: phrase('questions.names.hook_up'),
    asks: phrase('questions.asks.hook_up'),
    hint: phrase('questions.hints.hook_up'),
    screen: lazy(() => import('./QuestionHookUp.vue')),
  },
  cold: {
    name: phrase('questions.names.cold'),
    asks: phrase('questions.asks.cold'),
    hint: phrase('questions.hints.cold'),
    screen: lazy(() => import('./QuestionCold.vue')),
  },
  space: {
    name: phrase('questions.names.space'),
    asks: phrase('questions.asks.space'),
    hint: phrase('questions.hints.space'),
    screen: lazy(() => import('./QuestionSpace.vue')),
  },
  keep: {
    name: phrase('questions.names.keep'),
    asks: phrase('questions.asks.keep'),
    hint: phrase('questions.hints.keep'),
    screen: lazy(() => import('./QuestionKeep.vue')),
  },
}
