import { api, problemsOf, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { phrase } from '@/phrases/log'
import { ref, shallowRef } from 'vue'

/** What monitors logged of the rig that is open: a stretch of it as lines, its days, and the files. */
export function useReadings() {
  const plan = usePlan()
  const ui = useUi()
  const path = { rig_id: plan.rig!.id }
  const bank = ref('')
  const chart = shallowRef<Schemas['MonitorChartView'] | null>(null)
  const days = shallowRef<Schemas['MonitorDaysView'] | null>(null)
  const files = shallowRef<Schemas['MonitorFileView'][]>([])
  const failed = ref(false)
  let asked = 0

  /** A stretch of days; all of it where none is named. */
  async function draw(from_day?: number, to_day?: number) {
    const mine = ++asked
    const { data } = await api
      .GET('/api/rigs/{rig_id}/log/monitor', {
        params: { path, query: { bank: bank.value, from_day, to_day } },
      })
      .catch(() => ({ data: undefined }))
    if (mine !== asked) return
    failed.value = !data
    if (data) chart.value = data
  }

  async function listDays(more = false) {
    const last = more ? days.value?.days.at(-1)?.day : undefined
    const before = last ? Date.parse(`${last}T00:00Z`) / 864e5 : undefined
    const { data } = await api
      .GET('/api/rigs/{rig_id}/log/days', { params: { path, query: { bank: bank.value, before } } })
      .catch(() => ({ data: undefined }))
    if (!data) return
    days.value = more ? { ...data, days: [...days.value!.days, ...data.days] } : data
  }

  async function load() {
    await Promise.all([
      draw(),
      listDays(),
      api
        .GET('/api/rigs/{rig_id}/log/files', { params: { path } })
        .then(({ data }) => (files.value = data?.files ?? files.value))
        .catch(() => undefined),
    ])
  }

  async function remove(file: Schemas['MonitorFileView']) {
    const { error } = await api
      .DELETE('/api/rigs/{rig_id}/log/files/{file_id}', {
        params: { path: { ...path, file_id: file.id } },
      })
      .catch(() => ({ error: true }))
    ui.say(
      error ? problemsOf(error)[0]!.message : phrase('log.readings.removed', { name: file.name }),
    )
    await changed()
  }

  /** Other readings are kept now. */
  const changed = () => Promise.all([load(), plan.logChanged()])

  void load()
  return { plan, path, bank, chart, days, files, failed, draw, listDays, changed, remove }
}
