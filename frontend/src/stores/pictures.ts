import { phrase } from '@/phrases/shared'
import { api, problemsOf, type Schemas } from '@/api/client'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { useUi } from './ui'

export type Picture = Schemas['PictureView']

/** The pictures of the rig that is open. */
export const usePictures = defineStore('pictures', () => {
  const ui = useUi()
  const rig = ref(0)
  const list = shallowRef<Picture[]>([])

  async function load(of: number) {
    if (rig.value === of) return
    rig.value = of
    list.value = []
    const { data } = await api
      .GET('/api/rigs/{rig_id}/pictures', { params: { path: { rig_id: of } } })
      .catch(() => ({ data: undefined }))
    if (data && rig.value === of) list.value = data.pictures
    else if (!data) rig.value = 0
  }

  const of = (place: string) => list.value.filter((p) => p.place === place)

  /** Keep a picture; why it cannot be, if so. */
  async function add(place: string, file: File): Promise<string> {
    const id = `p${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`
    const query = new URLSearchParams({ id, place, name: file.name.slice(0, 200) })
    const answer = await fetch(`/api/rigs/${rig.value}/pictures?${query}`, {
      method: 'POST',
      headers: { 'Content-Type': file.type || 'application/octet-stream' },
      body: file,
    }).catch(() => null)
    const body = await answer?.json().catch(() => null)
    if (!answer?.ok) return problemsOf(body)[0]!.message
    list.value = [...list.value, body as Picture]
    return ''
  }

  async function remove(picture: Picture) {
    const at = { params: { path: { rig_id: rig.value, picture_id: picture.id } } }
    const { data } = await api
      .DELETE('/api/rigs/{rig_id}/pictures/{picture_id}', at)
      .catch(() => ({ data: undefined }))
    if (!data) return
    list.value = data.pictures
    ui.say(phrase('shared.pictures.removed'), {
      label: phrase('shared.pictures.undo'),
      run: async () => {
        const back = await api.POST('/api/rigs/{rig_id}/pictures/{picture_id}/restore', at)
        if (back.data) list.value = back.data.pictures
      },
    })
  }

  return { list, load, of, add, remove }
})
