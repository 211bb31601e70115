// The cables that a job can choose: the catalogue's, and its makers' own records.
import { computed } from 'vue'

import type { Cable, Catalogue } from '../../api/types'
import { useJob } from '../../job/useJob'
import { useCatalogue } from '../../shared/useCatalogue'

type Size = Cable['csa_mm2']
type Option = Omit<Catalogue['cables'][number], 'sizes_mm2'> & { sizes_mm2: Size[] }

export function useCables() {
  const store = useJob()
  const { catalogue } = useCatalogue()

  const all = computed<Option[]>(() => [
    ...((catalogue.value?.cables ?? []) as Option[]),
    ...(store.job?.maker_cables ?? []).map((own) => ({
      id: own.id,
      name: `${own.name} (maker’s record)`,
      sizes_mm2: [...new Set(own.ratings.map((one) => one.csa_mm2))].sort((a, b) => a - b),
      methods: [...new Set(own.ratings.map((one) => one.method))],
      phases: [1, 3],
      armoured: own.armoured,
    })),
  ])
  const byId = (id: string) => all.value.find((one) => one.id === id)
  const items = computed(() => all.value.map((one) => ({ value: one.id, words: one.name })))
  const sizes = (id: string) => (byId(id)?.sizes_mm2 ?? []).map((value) => ({ value, words: `${value} mm²` }))
  const words = (cable: Cable) => `${cable.csa_mm2} mm² ${byId(cable.record)?.name ?? cable.record}`

  return { all, byId, items, sizes, words }
}
