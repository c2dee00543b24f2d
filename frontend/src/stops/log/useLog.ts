import { shelf } from '@/stores/shelf'
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { onBeforeUnmount, ref, shallowRef } from 'vue'

export type Entry = Schemas['LogEntryView']
export type Line = Schemas['NewLogLineBody']

/** A line, or an entry of the form, that is not kept by the program yet; `refused` where it cannot be. */
export interface Waiting extends Line {
  form?: Schemas['LogEntryBody']
  refused?: string
}

const PLACE = 'vast-harbor-log-'
/** How long to wait before the next try [ms]. */
const AGAIN = 4000

/** A name that no other entry has, in another window neither. */
export const freshId = () => `e${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`
/** Now, and how far the clock is ahead of UTC. */
export const now = () => ({
  at: Math.floor(Date.now() / 1000),
  offset_min: -new Date().getTimezoneOffset(),
})

/** The log of the rig that is open: entries from the newest back, and lines that wait to be sent. */
export function useLog() {
  const plan = usePlan()
  const ui = useUi()
  const rig = plan.rig!.id
  const path = { rig_id: rig }
  const view = shallowRef<Schemas['LogView'] | null>(null)
  const entries = ref<Entry[]>([])
  const more = ref(false)
  const kind = ref('')
  const failed = ref(false)
  const duties = shallowRef<Schemas['DutyView'][]>([])
  const place = (id = '') => `${PLACE}${rig}-${id}`
  const waiting = ref<Waiting[]>(left())
  let timer = 0
  let sending = false

  async function load(older = false) {
    const last = older ? entries.value.at(-1) : undefined
    const { data } = await api
      .GET('/api/rigs/{rig_id}/log', {
        params: { path, query: { kind: kind.value, at: last?.at, id: last?.id } },
      })
      .catch(() => ({ data: undefined }))
    failed.value = !data
    if (!data) return
    view.value = data
    entries.value = older ? [...entries.value, ...data.entries] : data.entries
    more.value = data.more
    if (!older) void loadDuties()
  }

  async function loadDuties() {
    const { data } = await api
      .GET('/api/rigs/{rig_id}/log/duties', { params: { path } })
      .catch(() => ({ data: undefined }))
    if (data) duties.value = data.duties
  }

  /** What waits, of other windows too, the oldest first: each line has a place of its own. */
  function left(): Waiting[] {
    return shelf
      .keys()
      .filter((key) => key.startsWith(place()))
      .map((key) => JSON.parse(shelf.read(key)!) as Waiting)
      .sort((a, b) => a.at - b.at || a.id.localeCompare(b.id))
  }

  const keep = (line: Waiting) => shelf.write(place(line.id), JSON.stringify(line))

  /** Keep a line: in this browser at once, and with the program as soon as it answers; why it cannot be, if so. */
  async function add(line: string, bank: string): Promise<string> {
    const id = freshId()
    waiting.value.push({ id, line, bank, ...now() })
    keep(waiting.value.at(-1)!)
    await send()
    const mine = waiting.value.find((w) => w.id === id)
    // Who still stands at the field is told there.
    if (mine?.refused) forget(mine)
    return mine?.refused ?? ''
  }

  /** Keep an entry of the form in this browser, until the program answers. */
  async function wait(entry: Waiting) {
    const { id, line, bank, at, offset_min, form } = entry
    waiting.value.push({ id, line, bank, at, offset_min, form })
    keep(waiting.value.at(-1)!)
    await send()
  }

  const post = ({ id, line, bank, at, offset_min, form }: Waiting) =>
    form
      ? api.PUT('/api/rigs/{rig_id}/log/{entry_id}', {
          params: { path: { ...path, entry_id: id } },
          body: form,
        })
      : api.POST('/api/rigs/{rig_id}/log', {
          params: { path },
          body: { id, line, bank, at, offset_min },
        })

  /** Send what waits, in order; it stays until it is answered. */
  async function send() {
    clearTimeout(timer)
    if (sending) return
    sending = true
    let sent = false
    try {
      for (;;) {
        const next = waiting.value.find((w) => !w.refused)
        if (!next) break
        const answer = await post(next).catch(() => undefined)
        if (!answer || answer.response.status >= 500) {
          timer = window.setTimeout(send, AGAIN)
          break
        }
        if (answer.data) {
          forget(next)
          sent = true
        } else {
          next.refused = problemsOf(answer.error)[0]!.message
          keep(next)
        }
      }
    } finally {
      sending = false
    }
    if (sent) await Promise.all([load(), plan.logChanged()])
  }

  function forget(line: Waiting) {
    waiting.value = waiting.value.filter((w) => w.id !== line.id)
    shelf.drop(place(line.id))
  }

  async function remove(entry: Entry, what: string) {
    const at = { params: { path: { ...path, entry_id: entry.id } } }
    const { error } = await api.DELETE('/api/rigs/{rig_id}/log/{entry_id}', at)
    if (error) return ui.say(problemsOf(error)[0]!.message)
    await Promise.all([load(), plan.logChanged()])
    ui.say(phrase('log.stop.removed', { what }), {
      label: phrase('log.stop.undo'),
      run: async () => {
        await api.POST('/api/rigs/{rig_id}/log/{entry_id}/restore', at)
        await Promise.all([load(), plan.logChanged()])
      },
    })
  }

  /** Whether lines wait that are gone when the page is left: the browser has no room for them. */
  const held = shelf.holds(place())
  const leaves = (event: BeforeUnloadEvent) => held.value && event.preventDefault()
  window.addEventListener('beforeunload', leaves)
  const online = () => void send()
  window.addEventListener('online', online)
  onBeforeUnmount(() => {
    clearTimeout(timer)
    window.removeEventListener('online', online)
    window.removeEventListener('beforeunload', leaves)
  })
  void load()
  void send()

  return {
    plan,
    path,
    view,
    duties,
    entries,
    more,
    kind,
    failed,
    waiting,
    held,
    load,
    add,
    wait,
    forget,
    remove,
  }
}
