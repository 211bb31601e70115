// The householder's side of a link: the questions, and answers that are kept the moment they are given.
import { onMounted, ref } from 'vue'

import { answer, api, asProblem, sendPhoto } from '../api/client'
import type { HouseholderPage } from '../api/types'

export function useAnswers(secret: string) {
  const page = ref<HouseholderPage>()
  const ended = ref('')
  const failed = ref<Record<string, string>>({})
  const busy = ref('')

  async function open(): Promise<void> {
    try {
      page.value = await answer<HouseholderPage>(
        api.GET('/api/v1/householder/{secret}', { params: { path: { secret } } }),
      )
      ended.value = ''
    } catch (error) {
      const problem = asProblem(error)
      ended.value = problem.status === 422 ? 'This link is not whole. Check that all of it was copied.' : problem.detail
    }
  }

  async function attempt(question: string, what: () => Promise<HouseholderPage>): Promise<void> {
    busy.value = question
    try {
      page.value = await what()
      failed.value = { ...failed.value, [question]: '' }
    } catch (error) {
      const problem = asProblem(error)
      if (problem.status === 410) ended.value = problem.detail
      failed.value = { ...failed.value, [question]: problem.detail }
    }
    busy.value = ''
  }
  const give = (question: string, value: unknown) =>
    attempt(question, () =>
      answer(
        api.PUT('/api/v1/householder/{secret}/answers/{question}', {
          params: { path: { secret, question } },
          body: { value },
        }),
      ),
    )
  const send = (question: string, photo: File) =>
    attempt(question, () => sendPhoto(`/api/v1/householder/${secret}/photos/${question}`, photo))

  onMounted(open)
  return { page, ended, failed, busy, open, give, send }
}
