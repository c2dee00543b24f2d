<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { STOP_NAMES, STOPS } from '@/api/lists'
import { router } from '@/router'
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
  ['banks', 'find', phrase('shared.command_palette.find_banks_whole_catalogue')],
  ['banks', 'locker', phrase('shared.command_palette.place_bank_locker')],
  ['banks', 'wiring', phrase('shared.command_palette.wiring_drawing_bank_cable')],
  ['banks', 'volts', phrase('shared.command_palette.read_voltmeter_voltage_settings')],
  ['banks', 'batteries', phrase('shared.command_palette.enter_own_battery_catalogue')],
  ['charging', 'audit', phrase('shared.command_palette.my_chargers_suitable_change')],
  ['charging', 'curves', phrase('shared.command_palette.charging_time')],
  ['charging', 'needed', phrase('shared.command_palette.panels_charger_fuel_needed')],
  ['charging', 'measured', phrase('shared.command_palette.explain_measured_charge')],
  ['charging', 'settings', phrase('shared.command_palette.charger_settings')],
  ['trial', 'how-long', phrase('shared.command_palette.how_long_bank_appliance')],
  ['trial', 'year', phrase('shared.command_palette.simulated_year_bank')],
  ['trial', 'laid-up', phrase('shared.command_palette.laid_up_weeks_frost')],
  ['trial', 'monitor', phrase('shared.command_palette.simulated_battery_monitor_log')],
  ['compare', 'table', phrase('shared.command_palette.banks_side_side_equal')],
  ['compare', 'money', phrase('shared.command_palette.cost_item_over_years')],
  ['compare', 'doubt', phrase('shared.command_palette.when_verdict_changes_map')],
  ['compare', 'when', phrase('shared.command_palette.when_buy_how_much')],
  ['compare', 'loads', phrase('shared.command_palette.load_costs_battery')],
  ['compare', 'beliefs', phrase('shared.command_palette.true_or_not')],
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
    {
      name: phrase('shared.command_palette.go_harbor_rigs'),
      hint: '0',
      run: () => router.push('/'),
    },
    {
      name: phrase('shared.command_palette.glossary'),
      hint: '',
      run: () => router.push({ name: 'glossary' }),
    },
    {
      name: phrase('shared.command_palette.printable_report'),
      hint: '',
      run: () => window.open(`/api/rigs/${plan.rig!.id}/report?paper=a4`, '_blank', 'noopener'),
    },
    {
      name: phrase('shared.command_palette.read_battery_label'),
      hint: '',
      run: () => (ui.labelShown = true),
    },
    {
      name: phrase('shared.command_palette.add_empty_load'),
      hint: 'n',
      run: () => addLoad(undefined),
    },
    {
      name:
        other === 'us'
          ? phrase('shared.command_palette.show_pounds_f')
          : phrase('shared.command_palette.show_kilograms_c'),
      hint: '',
      run: () => setRig('units', '/rig/units', other),
    },
    {
      name:
        rig.lead === 'ah'
          ? phrase('shared.command_palette.show_use_watt_hours')
          : phrase('shared.command_palette.show_use_amp_hours'),
      hint: '',
      run: () =>
        setRig(
          phrase('shared.command_palette.main_unit'),
          '/rig/lead',
          rig.lead === 'ah' ? 'wh' : 'ah',
        ),
    },
    ...[12, 24, 36, 48]
      .filter((v) => v !== rig.system_v)
      .map((v) => ({
        name: phrase('shared.command_palette.set_system_v', { v }),
        hint: '',
        run: () => setRig(phrase('shared.command_palette.system_voltage'), '/rig/system_v', v),
      })),
    ...(reference.data?.rules ?? [])
      .filter((r) => r.key !== plan.document.plan.house_rule)
      .map((r) => ({
        name: phrase('shared.command_palette.use_house_rule', { name: r.name }),
        hint: '',
        run: () => setRig('house rule', '/plan/house_rule', r.key),
      })),
    {
      name: ui.night
        ? phrase('shared.command_palette.light_theme')
        : phrase('shared.command_palette.night_theme'),
      hint: '',
      run: () => ui.toggleTheme(),
    },
    ...(plan.rig?.undo
      ? [
          {
            name: phrase('shared.command_palette.undo', { undo: plan.rig.undo }),
            hint: 'Ctrl Z',
            run: () => plan.step('undo'),
          },
        ]
      : []),
    ...(plan.rig?.redo
      ? [
          {
            name: phrase('shared.command_palette.redo', { redo: plan.rig.redo }),
            hint: 'Ctrl Shift Z',
            run: () => plan.step('redo'),
          },
        ]
      : []),
    ...(plan.rig?.what_if
      ? [
          {
            name: phrase('shared.command_palette.keep_changes_tried'),
            hint: '',
            run: () => plan.whatIf('keep'),
          },
          {
            name: phrase('shared.command_palette.discard_changes_tried'),
            hint: '',
            run: () => plan.whatIf('drop'),
          },
        ]
      : [
          {
            name: phrase('shared.command_palette.try_changes_without_losing'),
            hint: 't',
            run: () => plan.whatIf(),
          },
        ]),
    ...plan.document.day.types.map((t) => ({
      name: phrase('shared.command_palette.show_day', { name: t.name }),
      hint: '',
      run: () => (go('day'), plan.showDay(t.id)),
    })),
    {
      name: phrase('shared.command_palette.recent_changes'),
      hint: '',
      run: () => (ui.changesShown = true),
    },
    {
      name: phrase('shared.command_palette.keyboard_shortcuts'),
      hint: '?',
      run: () => (ui.keysShown = true),
    },
    ...reference.appliances.map((a) => ({
      name: phrase('shared.command_palette.add', { name: a.name }),
      hint: a.says,
      run: () => addLoad(a),
    })),
    ...(plan.rig?.assumptions ?? []).map((a) => ({
      name: phrase('shared.command_palette.workings', { name: a.name }),
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
  <Dialog
    :open="ui.paletteShown"
    class="relative z-40"
    :aria-label="phrase('shared.command_palette.commands')"
    @close="close"
  >
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center p-4 pt-[12vh]">
      <DialogPanel class="sheet w-full max-w-lg overflow-hidden shadow-xl">
        <Combobox :model-value="null" nullable @update:model-value="run">
          <ComboboxInput
            class="w-full bg-transparent px-4 py-3 text-lg focus:outline-none"
            :aria-label="phrase('shared.command_palette.command')"
            :placeholder="phrase('shared.command_palette.go_page_add_load')"
            autocomplete="off"
            @change="query = $event.target.value"
          />
          <ComboboxOptions static class="max-h-[50vh] overflow-y-auto border-t border-line py-1">
            <p v-if="!found.length" class="px-4 py-2 text-soft">
              {{ phrase('shared.command_palette.nothing_found') }}
            </p>
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
