// The order of the steps: the coach's with the fewest moves, or the book's. The server works it out.
import { useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { CoachPlan, Move, Step } from '../../api/types'
import { useJob } from '../../job/useJob'
import type { ShownStep } from '../../readings/waiting'
import { useLooking } from '../../shared/useLooking'

const byCoach = useLocalStorage('fulmen-by-coach', true)

export const keyOf = (step: { step: string; subject: string }) => `${step.step}/${step.subject}`

/** Steps to show: what is only offered with another is shown once it was taken, or asked for. */
export const isListed = (step: Step) => step.offered_with === null || step.required || step.reading !== null

export function useTestOrder(stage: () => Step['stage']) {
  const store = useJob()
  // A reading that is taken meanwhile leaves the order as it is.
  const { soFar, found, finished, failed, look } = useLooking('/api/v1/tests/order', { outlives: true })
  const plan = ref<CoachPlan>()
  // Nobody begins in one order and is shown another a moment later: the order is waited for, once.
  const settled = ref(!byCoach.value)
  const ended = computed(() => soFar.value?.state === 'finished' || soFar.value?.state === 'stopped')
  watch([ended, failed], () => (settled.value ||= ended.value || Boolean(failed.value)), { flush: 'post' })
  const listed = computed(() => store.steps.filter(isListed))
  // An order that is still looked for would move under the tester's hands: it counts once it is found.
  watch(finished, (now) => now && (plan.value = found.value))
  // Without an answer the steps stand in the book's order, which is always right.
  watch(failed, (now) => now && (plan.value = undefined))
  const ask = () => void (store.job && listed.value.length && look(store.judged!))
  const shape = () => JSON.stringify([listed.value.map(keyOf), store.id])
  watchDebounced(shape, ask, { debounce: 150, immediate: true })

  const places = computed(() => new Map(plan.value?.steps.map((one, place) => [keyOf(one), place])))
  const steps = computed((): ShownStep[] => {
    const own = listed.value.filter((step) => step.stage === stage())
    if (!byCoach.value || !plan.value) return own
    const place = (step: Step) => places.value.get(keyOf(step)) ?? 0
    return [...own].sort((one, other) => place(one) - place(other))
  })
  const movesOf = (step: Step): Move[] =>
    byCoach.value ? (plan.value?.steps.find((one) => keyOf(one) === keyOf(step))?.moves ?? []) : []
  return { steps, movesOf, plan, byCoach, settled }
}
