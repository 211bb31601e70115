// One exercise: read it, do one thing after the other; what was refused is told and nothing is lost.
import { ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { PracticeAct, PracticeState } from '../api/types'

export function useExercise(id: () => number) {
  const state = ref<PracticeState>()
  const failed = ref('')
  const busy = ref(false)

  async function attempt(what: () => Promise<PracticeState>): Promise<boolean> {
    busy.value = true
    failed.value = ''
    try {
      state.value = await what()
      return true
    } catch (error) {
      failed.value = asProblem(error).detail
      return false
    } finally {
      busy.value = false
    }
  }
  const params = () => ({ path: { exercise_id: id() } })
  const load = () => attempt(() => answer(api.GET('/api/v1/practice/{exercise_id}', { params: params() })))
  // One act after the other: while an answer is on its way nothing else is done.
  const act = async (done: PracticeAct): Promise<boolean> =>
    !busy.value &&
    attempt(() =>
      answer(
        api.POST('/api/v1/practice/{exercise_id}/acts', {
          params: params(),
          body: { after: state.value!.entries.length, act: done },
        }),
      ),
    )
  return { state, failed, busy, load, act }
}
