import { ref, watch } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Finding, FittingReason, StandingReason, StandingReasons } from '../api/types'
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
  const job = useJob().job
  if (!job) return
  await tried(async () => {
    const asked = api.POST('/api/v1/standing-reasons/fitting', { body: job })
    fitting.value = (await answer<{ fitting: FittingReason[] }>(asked)).fitting
  })
}

/** Replaces the reasons by what becomes of them. */
const change = (make: (kept: StandingReason[]) => StandingReason[]) =>
  tried(async () => {
    const { reasons } = await answer<StandingReasons>(api.GET('/api/v1/standing-reasons'))
    await answer(api.PUT('/api/v1/standing-reasons', { body: { reasons: make(reasons) } }))
    await find()
  })
const same = (one: StandingReason, finding: Finding) =>
  one.rule === finding.rule && JSON.stringify(one.basis) === JSON.stringify(finding.basis)

export function useStandingReasons() {
  const standingFor = (finding: Finding) => fitting.value.find((one) => one.finding === finding.key)?.standing
  const keep = (finding: Finding, reason: string, name: string) =>
    change((kept) => [
      ...kept.filter((one) => !same(one, finding)),
      { rule: finding.rule, basis: finding.basis, reason, name, kept_on: today() },
    ])
  const forget = (finding: Finding) => change((kept) => kept.filter((one) => !same(one, finding)))
  return { standingFor, keep, forget, failed }
}
