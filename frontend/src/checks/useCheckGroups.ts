// The checks in the order of work: what needs attention, what is tight, and the rest by what it is about.
import { computed } from 'vue'

import type { Finding, Settled } from '../api/types'
import { useJob } from '../job/useJob'

/** Less than this share of the limit to spare is tight. */
const TIGHT = 0.1

/** What is told in full may be open; a row is settled. */
export const isOpen = (one: Finding | Settled) => 'is_open' in one && one.is_open

export function useCheckGroups(findings: () => (Finding | Settled)[]) {
  const store = useJob()

  /** The name of the board, circuit or charge point that a finding is about, else the supply. */
  function about(finding: Finding | Settled): string {
    const job = store.job!
    if (finding.topics.includes('reading') || finding.topics.includes('agreement')) return 'Readings'
    const subject = finding.key.slice(finding.key.indexOf('/') + 1)
    const circuit = subject.replace(/-\d+$/, '')
    const named = [...job.circuits, ...job.boards, ...job.charge_points].find(
      (one) => one.id === subject || one.id === circuit,
    )
    return named?.name ?? 'Supply'
  }

  const attention = computed(() => findings().filter(isOpen))
  const tight = computed(() => findings().filter((one) => !isOpen(one) && one.margin !== null && one.margin < TIGHT))
  const rest = computed(() => {
    const found = new Map<string, (Finding | Settled)[]>()
    for (const one of findings())
      if (!attention.value.includes(one) && !tight.value.includes(one))
        found.set(about(one), [...(found.get(about(one)) ?? []), one])
    return [...found].map(([name, rows]) => ({ name, rows }))
  })
  return { attention, tight, rest }
}
