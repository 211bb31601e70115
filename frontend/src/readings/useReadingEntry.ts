// Typing one reading: digits from keys or pad, and what it means as a reading.
import { computed, ref } from 'vue'

import type { Reading, Step } from '../api/types'
import { useJob } from '../job/useJob'
import { asWritten } from './asWritten'
import { beyondRange } from './figureRange'

// Which voltage the insulation was tested at: asked once, then as it was last.
const testVoltageV = ref<number | null>(null)

export interface Taken {
  name: string
  instrument: string
  /** Who read it, where somebody at the other end did and this one writes it down. */
  readBy?: string
}

export function useReadingEntry(step: () => Step) {
  const store = useJob()
  const typed = ref('')
  const again = ref('')
  const photo = ref('')
  const written = computed(() => asWritten(typed.value))
  const value = computed(() => written.value?.value ?? null)
  const insulates = computed(() => step().function === 'insulation')
  /** What has to be said before a figure can be kept. */
  const lacking = computed(() => {
    const beyond = beyondRange(step(), written.value)
    if (beyond) return beyond
    if (insulates.value && testVoltageV.value === null) return 'Say at which voltage it was tested.'
    if (step().reading && again.value.trim().length < 3) return 'Say why it is taken again: the first figure stays.'
    return ''
  })

  /** What a test set showed stands in the field, to be kept or not. */
  function fill(shown: { outcome: Reading['outcome']; value: number | null; test_voltage_v: number | null }): void {
    typed.value = `${shown.outcome === 'over_range' ? '>' : ''}${shown.value ?? ''}`
    if (shown.test_voltage_v !== null) testVoltageV.value = shown.test_voltage_v
  }

  function press(key: string): void {
    if (key === 'back') typed.value = typed.value.slice(0, -1)
    else if (key === '.' && typed.value.includes('.')) return
    else if (typed.value.length < 7) typed.value += key
  }

  function reading(outcome: Reading['outcome'], by: Taken, reason = ''): Reading {
    const here = step()
    const measured = outcome === 'measured' || outcome === 'over_range'
    return {
      step: here.step,
      subject: here.subject,
      outcome,
      // What is wrong may have been measured all the same: both stay.
      value: measured || (outcome === 'wrong' && here.unit) ? value.value : null,
      reason,
      instrument: by.instrument.trim(),
      test_voltage_v: insulates.value && measured ? testVoltageV.value : null,
      temperature_c: store.job?.testing.conductors_c ?? null,
      // The one that this screen shows: one that another took meanwhile is not known here, and somebody is asked.
      follows: here.reading ? { taken_by: here.reading.taken_by, taken_at: here.reading.taken_at } : null,
      again_because: here.reading ? again.value.trim() : '',
      photo: photo.value,
      taken_by: by.readBy || by.name.trim(),
      entered_by: by.readBy ? by.name.trim() : '',
      taken_at: new Date().toISOString(),
      came_at: null,
    }
  }

  /** The entry that takes back what this screen shows. */
  function back(name: string): Reading {
    const measured = { instrument: '', test_voltage_v: null, temperature_c: null, again_because: '', photo: '' }
    return { ...reading('taken_back', { name, instrument: '' }, again.value.trim()), ...measured }
  }

  return { typed, again, photo, written, value, insulates, testVoltageV, lacking, fill, press, reading, back }
}
