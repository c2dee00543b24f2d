import { OPTIONS } from '@/api/lists'

type Options = typeof OPTIONS

/** What a field of the rig file may be, in the order of the file, with a name for each. */
export function choicesOf<Place extends keyof Options>(
  place: Place,
  names: Record<Options[Place][number], string>,
): { value: string; name: string }[] {
  return OPTIONS[place].map((value) => ({
    value,
    name: names[value as Options[Place][number]],
  }))
}
