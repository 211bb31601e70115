// How the set stands in the learner's hands: dial, leads, link, adapter. It stays so from step to step; a link is in
// the house, and stays there.
import { computed, reactive, ref, watch } from 'vue'

import type { PracticeAct, PracticeState, Step, Terminal } from '../api/types'

type Take = Extract<PracticeAct, { kind: 'take' }>

export function useSetUp(step: () => Step | undefined, links: () => PracticeState['links']) {
  const dial = ref('')
  const linked = ref<Take['linked']>('none')
  const adapter = ref('')
  const leads = reactive<Record<string, Terminal['point'][]>>({})
  const active = ref('')
  const linkHere = computed(
    () => links().find((one) => one.subject === step()?.subject || one.subject === step()?.circuit)?.linked ?? 'none',
  )
  watch([linkHere, () => step()?.circuit], () => (linked.value = linkHere.value))
  const jacks = computed(() => step()?.leads.map((one) => one.jack) ?? [])

  // The leads stay where they are as long as the set has the same ones.
  watch(
    jacks,
    (now) => {
      if (now.length && now.join() !== Object.keys(leads).join()) {
        for (const jack of Object.keys(leads)) delete leads[jack]
        for (const jack of now) leads[jack] = []
      }
      active.value = now.find((jack) => !leads[jack]?.length) ?? now[0] ?? ''
    },
    { immediate: true },
  )
  /** A tap puts the active lead there, or takes it off; two points are held together where two are. */
  function tap(point: Terminal['point'], together: boolean): void {
    const its = leads[active.value]
    if (!its) return
    if (its.includes(point)) leads[active.value] = its.filter((one) => one !== point)
    else leads[active.value] = together && its.length === 1 ? [...its, point] : [point]
    if (!together) active.value = jacks.value.find((jack) => !leads[jack]!.length) ?? active.value
  }
  function asAsked(): void {
    const asked = step()
    if (!asked) return
    if (asked.leads.length) dial.value = asked.dial
    linked.value = asked.linked
    adapter.value = asked.adapter
    for (const lead of asked.leads) leads[lead.jack] = [...lead.at]
  }
  // Links belong to dead tests, the adapter to live ones: neither is carried where its choice is not offered.
  const linkedNow = computed(() => (step()?.stage === 'dead' ? linked.value : 'none'))
  const adapterNow = computed(() => (step()?.stage === 'live' ? adapter.value : ''))
  const taking = (): Take => ({
    kind: 'take',
    step: step()!.step,
    subject: step()!.subject,
    dial: dial.value || 'volts_both',
    leads: Object.fromEntries(jacks.value.map((jack) => [jack, leads[jack] ?? []])),
    linked: linkedNow.value,
    adapter: adapterNow.value,
  })
  return { dial, linked, linkedNow, adapter, leads, active, jacks, tap, asAsked, taking }
}
