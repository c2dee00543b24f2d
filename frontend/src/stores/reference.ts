import { api, type Operation, type ReferenceView, type Schemas } from '@/api/client'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

/** Battery classes, house rules and the appliance list, loaded once. */
export const useReference = defineStore('reference', () => {
  const data = ref<ReferenceView | null>(null)

  async function load() {
    if (data.value) return
    data.value = (await api.GET('/api/reference')).data ?? null
    await loadOwn()
  }

  const own = ref<Schemas['ApplianceView'][]>([])

  async function loadOwn() {
    own.value = (await api.GET('/api/appliances')).data?.appliances ?? []
  }

  async function forgetOwn(id: number) {
    const path = { appliance_id: id }
    const { data } = await api.DELETE('/api/appliances/{appliance_id}', { params: { path } })
    own.value = data?.appliances ?? own.value
  }

  /** The owner's own appliances, then the shipped ones. */
  const appliances = computed(() => [...own.value, ...(data.value?.appliances ?? [])])

  const classes = computed(
    () =>
      new Map((data.value?.classes ?? []).map((c) => [c.key, c] as [string, Schemas['ClassView']])),
  )

  /** Volts and rated time that go with a class, when a battery changes its family. */
  function withClass(at: string, from: unknown, to: unknown, rated = false): Operation[] {
    const before = classes.value.get(String(from))
    const after = classes.value.get(String(to))
    if (!after || before?.lead_acid === after.lead_acid) return []
    const volts: Operation = { op: 'replace', path: `${at}/unit_v`, value: after.unit_v }
    const hours: Operation = { op: 'replace', path: `${at}/rated_hours`, value: after.rated_hours }
    return rated ? [volts, hours] : [volts]
  }

  /** Place and climate of a region, when it is chosen. */
  function withRegion(key: string | number | null): Operation[] {
    const region = data.value?.regions.find((r) => r.key === key)
    if (!region) return []
    return (['latitude', 'longitude', 'utc_offset_h', 'climate'] as const).map((field) => ({
      op: 'replace',
      path: `/rig/${field}`,
      value: region[field],
    }))
  }

  return { data, own, appliances, classes, load, loadOwn, forgetOwn, withClass, withRegion }
})
