import { phrase } from '@/phrases/banks'
import type { CandidateView, Schemas } from '@/api/client'
import type { Place } from '@/api/rigFile'
import { usePlan } from '@/stores/plan'
import { ref, watch, type Ref } from 'vue'

export type Box = Schemas['BoxView']

/**
 * The boxes of a bank as they are dragged: a box follows the hand at once, and where it is dropped goes
 * to the rig, whose answer says whether it may stand there.
 */
export function useBoxes(
  answer: Ref<Schemas['LockerView'] | null>,
  bank: Ref<CandidateView | undefined>,
) {
  const plan = usePlan()
  const boxes = ref<Box[]>([])
  watch(answer, (now) => (boxes.value = now?.boxes.map((b) => ({ ...b })) ?? []), {
    immediate: true,
  })

  const place = (b: Box): Place => ({
    compartment: b.compartment,
    x: Math.max(0, Math.round(b.x)),
    y: Math.max(0, Math.round(b.y)),
    pose: b.pose as Place['pose'],
    turned: b.turned,
  })

  function send(label: string) {
    if (!bank.value) return
    const path = `/candidates/${bank.value.index}/places`
    const value = boxes.value.map(place)
    // A bank of which not every box found room has places for all once one of them is moved.
    while (value.length < (answer.value?.count ?? 0))
      value.push({ compartment: 0, x: 25, y: 25, pose: 'upright', turned: false })
    plan.set(`${bank.value.title}: ${label}`, path, [{ op: 'replace', path, value }])
  }

  function change(number: number, to: Partial<Box>) {
    boxes.value = boxes.value.map((b) => (b.number === number ? { ...b, ...to } : b))
  }

  function move(number: number, x: number, y: number) {
    change(number, { x, y })
  }

  function drop(number: number, to: Partial<Box> = {}) {
    change(number, to)
    send(phrase('banks.use_boxes.move_battery'))
  }

  function turn(number: number) {
    const box = boxes.value.find((b) => b.number === number)
    if (!box) return
    change(number, { turned: !box.turned, length: box.width, width: box.length })
    send(phrase('banks.use_boxes.turn_battery'))
  }

  function lay(number: number, pose: string) {
    change(number, { pose })
    send(phrase('banks.use_boxes.lay_battery_down'))
  }

  function reset() {
    if (!bank.value) return
    const path = `/candidates/${bank.value.index}/places`
    plan.edit(
      phrase('banks.use_boxes.place_batteries_automatically', { title: bank.value.title }),
      {
        op: 'replace',
        path,
        value: [],
      },
    )
  }

  return { boxes, move, drop, turn, lay, reset }
}
