// Typing one reading: digits from keys or pad, and what it means as a reading.
import { computed, ref } from 'vue'

import type { Reading, Step } from '../api/types'
import { typedNumber } from '../shared/format'

export function useReadingEntry(step: () => Step | undefined) {
  const typed = ref('')
  const value = computed(() => {
    const number = typedNumber(typed.value)
    return typeof number === 'number' ? number : null
  })

  function press(key: string): void {
    if (key === 'back') typed.value = typed.value.slice(0, -1)
    else if (key === '.' && typed.value.includes('.')) return
    else if (typed.value.length < 7) typed.value += key
  }

  function reading(outcome: Reading['outcome'], by: { name: string; instrument: string }, reason = ''): Reading {
    const here = step()!
    const measured = outcome === 'measured' || outcome === 'over_range'
    return {
      step: here.step,
      subject: here.subject,
      outcome,
      value: measured ? value.value : null,
      reason,
      instrument: by.instrument.trim(),
      test_voltage_v: here.step.startsWith('ir_') && measured ? 500 : null,
      temperature_c: null,
      taken_by: by.name.trim(),
      taken_at: new Date().toISOString(),
    }
  }

  return { typed, value, press, reading }
}
