/** What a window runs of the interface where nothing is drawn: the plan with its outbox. */
import { usePlan } from '@/stores/plan'
import { shelf } from '@/stores/shelf'
import { useUi } from '@/stores/ui'
import type { Operation } from '@/api/client'
import { createPinia, setActivePinia } from 'pinia'

setActivePinia(createPinia())
const plan = usePlan()
/** What was said since it was last asked for. */
const said: string[] = []
useUi().$onAction(({ name, args }) => {
  if (name === 'say') said.push(String(args[0]))
})

Object.assign(globalThis, {
  page: {
    open: (id: number) => plan.open(id),
    type: (path: string, text: string, label: string) => plan.type(path, text, label),
    edit: (label: string, ...operations: Operation[]) => plan.edit(label, ...operations),
    step: (which: 'undo' | 'redo') => plan.step(which),
    refresh: () => plan.refresh(),
    settled: () => plan.settled(),
    shown: () => ({
      document: plan.rig?.document ?? null,
      unsent: plan.unsent,
      held: plan.held,
      // Also what the browser had no room for.
      waiting: shelf
        .keys()
        .filter((key) => key.startsWith('vast-harbor-unsent-'))
        .flatMap((key) => JSON.parse(shelf.read(key)!)),
      said: said.splice(0),
    }),
  },
})
