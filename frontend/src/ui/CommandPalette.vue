<script setup lang="ts">
import { router, STOP_NAMES, STOPS } from '@/router'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import { useLoads } from '@/stores/useLoads'
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/vue'
import { computed, nextTick, ref } from 'vue'

interface Command {
  name: string
  hint: string
  run: () => unknown
}

const ui = useUi()
const plan = usePlan()
const reference = useReference()
const { add } = useLoads()
const query = ref('')
const MOST = 12
const PARTS = [
  ['banks', 'find', 'Find banks in the whole catalogue'],
  ['banks', 'locker', 'Stand a bank into the locker'],
  ['banks', 'wiring', 'Draw the wiring of a bank; size a cable and fuse'],
  ['banks', 'volts', 'Read a meter; volts to act on'],
  ['banks', 'batteries', 'Enter a battery; the catalogue'],
  ['charging', 'audit', 'Will the chargers do? Remedies'],
  ['charging', 'curves', 'How fast a bank is charged'],
  ['charging', 'needed', 'How much panel, charger or fuel is needed; the sun'],
  ['charging', 'measured', 'Explain a measured charge'],
  ['charging', 'settings', 'Settings sheet of the chargers'],
  ['trial', 'how-long', 'How long until dark; how long an appliance runs'],
  ['trial', 'year', 'The year of each bank'],
  ['trial', 'laid-up', 'Laid up: weeks, frost, when to recharge'],
  ['trial', 'monitor', 'Play the battery monitor; its log'],
  ['compare', 'table', 'The banks side by side; equal terms'],
  ['compare', 'money', 'Money by item and over the years; extras'],
  ['compare', 'doubt', 'What would change the verdict; map of use'],
  ['compare', 'when', 'When to buy and how much at once; packages'],
  ['compare', 'loads', 'What battery each load causes'],
] as const

const go = (stop: string) => router.push({ name: 'rig', params: { id: plan.rig!.id, stop } })

function setRig(label: string, path: string, value: string | number) {
  return plan.edit(label, { op: 'replace', path, value })
}

async function addLoad(entry: Parameters<typeof add>[0]) {
  await go('day')
  await nextTick()
  await add(entry)
}

const commands = computed<Command[]>(() => {
  const rig = plan.document.rig
  const other = rig.units === 'us' ? 'metric' : 'us'
  return [
    ...STOPS.map((s, i) => ({
      name: `Go to ${STOP_NAMES[s]}`,
      hint: String(i + 1),
      run: () => go(s),
    })),
    ...PARTS.map(([stop, part, name]) => ({
      name,
      hint: '',
      run: () => router.push({ name: 'rig', params: { id: plan.rig!.id, stop }, query: { part } }),
    })),
    { name: 'Go to Harbor, all rigs', hint: '0', run: () => router.push('/') },
    {
      name: 'Report to print',
      hint: '',
      run: () => window.open(`/api/rigs/${plan.rig!.id}/report?paper=a4`, '_blank', 'noopener'),
    },
    { name: 'Read a battery label', hint: '', run: () => (ui.labelShown = true) },
    { name: 'Add an empty load', hint: 'n', run: () => addLoad(undefined) },
    {
      name: other === 'us' ? 'Show pounds and °F' : 'Show kilograms and °C',
      hint: '',
      run: () => setRig('units', '/rig/units', other),
    },
    {
      name: rig.lead === 'ah' ? 'Tell use in watt-hours' : 'Tell use in amp-hours',
      hint: '',
      run: () => setRig('lead figure', '/rig/lead', rig.lead === 'ah' ? 'wh' : 'ah'),
    },
    ...[12, 24, 36, 48]
      .filter((v) => v !== rig.system_v)
      .map((v) => ({
        name: `Set the system to ${v} V`,
        hint: '',
        run: () => setRig('system voltage', '/rig/system_v', v),
      })),
    ...(reference.data?.rules ?? [])
      .filter((r) => r.key !== plan.document.plan.house_rule)
      .map((r) => ({
        name: `Follow the ${r.name}`,
        hint: '',
        run: () => setRig('house rule', '/plan/house_rule', r.key),
      })),
    { name: ui.night ? 'Light theme' : 'Night theme', hint: '', run: () => ui.toggleTheme() },
    ...(plan.rig?.undo
      ? [{ name: `Undo: ${plan.rig.undo}`, hint: 'Ctrl Z', run: () => plan.step('undo') }]
      : []),
    ...(plan.rig?.redo
      ? [{ name: `Do again: ${plan.rig.redo}`, hint: 'Ctrl Shift Z', run: () => plan.step('redo') }]
      : []),
    ...(plan.rig?.what_if
      ? [
          { name: 'Keep what is tried', hint: '', run: () => plan.whatIf('keep') },
          { name: 'Drop what is tried', hint: '', run: () => plan.whatIf('drop') },
        ]
      : [{ name: 'What if: try changes beside the plan', hint: 't', run: () => plan.whatIf() }]),
    ...plan.document.day.types.map((t) => ({
      name: `Show the day “${t.name}”`,
      hint: '',
      run: () => (go('day'), plan.showDay(t.id)),
    })),
    { name: 'What was changed', hint: '', run: () => (ui.changesShown = true) },
    { name: 'Keys', hint: '?', run: () => (ui.keysShown = true) },
    ...reference.appliances.map((a) => ({
      name: `Add ${a.name}`,
      hint: a.says,
      run: () => addLoad(a),
    })),
    ...(plan.rig?.assumptions ?? []).map((a) => ({
      name: `Workings: ${a.name}`,
      hint: a.text,
      run: () => ui.openWorkings(`assume.${a.key}`),
    })),
  ]
})

const found = computed(() => {
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  return commands.value
    .filter((c) => words.every((w) => c.name.toLowerCase().includes(w)))
    .slice(0, MOST)
})

function close() {
  ui.paletteShown = false
  query.value = ''
}

function run(command: Command | null) {
  close()
  // After the dialog has given the focus back.
  if (command) setTimeout(command.run)
}
</script>

<template>
  <Dialog :open="ui.paletteShown" class="relative z-40" aria-label="Commands" @close="close">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center p-4 pt-[12vh]">
      <DialogPanel class="sheet w-full max-w-lg overflow-hidden shadow-xl">
        <Combobox :model-value="null" nullable @update:model-value="run">
          <ComboboxInput
            class="w-full bg-transparent px-4 py-3 text-lg focus:outline-none"
            aria-label="Command"
            placeholder="Go to a stop, add a load, find an assumption …"
            autocomplete="off"
            @change="query = $event.target.value"
          />
          <ComboboxOptions static class="max-h-[50vh] overflow-y-auto border-t border-line py-1">
            <p v-if="!found.length" class="px-4 py-2 text-soft">Nothing by that name.</p>
            <ComboboxOption
              v-for="c in found"
              :key="c.name"
              v-slot="{ active }"
              :value="c"
              as="template"
            >
              <li
                class="flex cursor-pointer justify-between gap-4 px-4 py-1.5"
                :class="active ? 'bg-wash' : ''"
              >
                <span>{{ c.name }}</span><span class="shrink-0 text-soft">{{ c.hint }}</span>
              </li>
            </ComboboxOption>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
