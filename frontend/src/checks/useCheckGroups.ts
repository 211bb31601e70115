// The checks in the order of work: what needs attention, what is tight, and the rest by what it is about.
import { computed } from 'vue'

import type { Finding } from '../api/types'
import { useJob } from '../job/useJob'

/** Less than this share of the limit to spare is tight. */
const TIGHT = 0.1

export function useCheckGroups(findings: () => Finding[]) {
  const store = useJob()

  /** The name of the board, circuit or charge point that a finding is about, else the supply. */
  function about(finding: Finding): string {
    const job = store.job!
    if (finding.topics.includes('reading') || finding.topics.includes('agreement')) return 'Readings'
    const subject = finding.subject.replace(/-\d+$/, '')
    const named = [...job.circuits, ...job.boards, ...job.charge_points].find(
      (one) => one.id === finding.subject || one.id === subject,
    )
    return named?.name ?? 'Supply'
  }

  const attention = computed(() => findings().filter((one) => one.is_open))
  const tight = computed(() => findings().filter((one) => !one.is_open && one.margin !== null && one.margin < TIGHT))
  const rest = computed(() => {
    const found = new Map<string, Finding[]>()
    for (const one of findings())
      if (!attention.value.includes(one) && !tight.value.includes(one))
        found.set(about(one), [...(found.get(about(one)) ?? []), one])
    return [...found].map(([name, rows]) => ({ name, rows }))
  })
  return { attention, tight, rest }
}
