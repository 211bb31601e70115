import { ref, watch } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Finding, FittingReason } from '../api/types'
import { useJob } from '../job/useJob'
import { today } from '../shared/format'

const fitting = ref<FittingReason[]>([])
const failed = ref('')

async function tried(act: () => Promise<void>): Promise<void> {
  failed.value = ''
  try {
    await act()
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}

/** The firm's standing reasons that fit this job's open calls; asked anew whenever the job was judged again. */
export function watchStandingReasons(): void {
  const store = useJob()
  watch(() => store.evaluation, find, { immediate: true })
}

async function find(): Promise<void> {
  const job = useJob().judged
  if (!job) return
  await tried(async () => {
    const asked = api.POST('/api/v1/standing-reasons/fitting', { body: job })
    fitting.value = (await answer<{ fitting: FittingReason[] }>(asked)).fitting
  })
}

const change = (asked: Promise<{ data?: unknown; error?: unknown; response: Response }>) =>
  tried(async () => {
    await answer(asked)
    await find()
  })

export function useStandingReasons() {
  const standingFor = (finding: Finding) => fitting.value.find((one) => one.finding === finding.key)?.standing
  const keep = ({ rule, basis }: Finding, reason: string, name: string) =>
    change(api.POST('/api/v1/standing-reasons', { body: { rule, basis, reason, name, kept_on: today() } }))
  const forget = ({ rule, basis }: Finding) =>
    change(api.POST('/api/v1/standing-reasons/forget', { body: { rule, basis } }))
  return { standingFor, keep, forget, failed }
}
