// Which charge point's run is looked at; a job may hold several.
import { computed, type Ref, ref } from 'vue'

import type { Evaluation, Job } from '../api/types'

export function usePoint(job: Ref<Job | undefined>, evaluation: Ref<Evaluation | undefined>) {
  const point = ref('')
  const pointIndex = computed(() =>
    Math.max(0, job.value?.charge_points.findIndex((one) => one.id === point.value) ?? 0),
  )
  const profile = computed(() => ofPoint(evaluation.value?.profiles))
  const sentence = computed(() => ofPoint(evaluation.value?.sentences))
  const faults = computed(() => ofPoint(evaluation.value?.faults))
  // A run to loads has no charge point, and is not drawn.
  const guards = computed(() => ofPoint(evaluation.value?.guards.filter((one) => one.charge_point)))
  function ofPoint<T extends { charge_point: string }>(all: T[] | undefined): T | undefined {
    return all?.find((one) => one.charge_point === point.value) ?? all?.[0]
  }
  return { point, pointIndex, profile, sentence, faults, guards }
}
