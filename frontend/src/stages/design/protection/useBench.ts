// The broken-PEN bench: a street that can be changed, and what the core says of it. Nothing of it is stored.
import { computed, onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { Bench, BenchResult, Preset } from '../../../api/types'
import { useAsked } from '../../../shared/useAsked'

export const MOST_HOUSES = 13

export function useBench() {
  const presets = ref<Preset[]>([])
  const key = ref('')
  const bench = ref<Bench>()
  const chosen = ref(0)
  const missing = ref('')
  const { found, failed } = useAsked(
    () => bench.value,
    (body) => answer<BenchResult>(api.POST('/api/v1/protection/bench', { body })),
  )

  onMounted(async () => {
    try {
      presets.value = (await answer<{ presets: Preset[] }>(api.GET('/api/v1/protection/teaching'))).presets
      take(presets.value[0]!.key)
    } catch (error) {
      missing.value = asProblem(error).detail
    }
  })

  function take(wanted: string): void {
    const preset = presets.value.find((one) => one.key === wanted)
    if (!preset) return
    key.value = wanted
    bench.value = JSON.parse(JSON.stringify(preset.bench)) as Bench
    chosen.value = bench.value.street.here
  }
  const lesson = computed(() => presets.value.find((one) => one.key === key.value)?.lesson ?? '')
  const house = computed(() => bench.value?.street.houses[chosen.value])
  const phase = computed(() => Math.max(0, house.value?.loads_a.findIndex((load) => load > 0) ?? 0))
  const load = computed(() => house.value?.loads_a[phase.value] ?? 0)

  /** The load of the house you look at, on one phase. */
  function setLoad(amps: number, onPhase = phase.value): void {
    if (house.value)
      house.value.loads_a = [0, 1, 2].map((each) => (each === onPhase ? amps : 0)) as [number, number, number]
  }
  function lookAt(place: number): void {
    chosen.value = place
  }
  function setElectrode(ohm: number | null): void {
    if (house.value) house.value.electrode_ohm = ohm
  }
  function setHouses(count: number): void {
    const street = bench.value!.street
    while (street.houses.length < count) {
      const next = street.houses.length
      street.houses.push({
        loads_a: [0, 1, 2].map((each) => (each === next % 3 ? 8 : 0)) as [number, number, number],
        electrode_ohm: null,
      })
    }
    street.houses.splice(count)
    street.here = Math.min(street.here, count - 1)
    street.broken_before = Math.min(street.broken_before, count - 1)
    chosen.value = Math.min(chosen.value, count - 1)
  }
  return {
    presets,
    key,
    bench,
    chosen,
    found,
    failed,
    missing,
    lesson,
    house,
    phase,
    load,
    take,
    lookAt,
    setLoad,
    setElectrode,
    setHouses,
  }
}
