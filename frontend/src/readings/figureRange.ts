// Whether a figure is one that an instrument can show; the server holds to the same.
import type { Step } from '../api/types'
import { useCatalogue } from '../shared/useCatalogue'
import type { Written } from './asWritten'

const { stepText } = useCatalogue()

/** Why it can't be, or nothing. */
export function beyondRange(step: Step, written: Written | null): string {
  const { unit, title } = step
  const figures = stepText(step)?.figures
  if (!figures || !written || written.value === null) return ''
  if (written.value < 0) return `${title} can't be below 0 ${unit}.`
  if (written.value > figures.most) return `${title} can be at most ${figures.most} ${unit}.`
  if (written.value === 0 && figures.zero !== 'read') return figures.zero
  if (written.outcome === 'over_range' && figures.over === 'none') {
    return `${title} has no over range: give the figure, up to ${figures.most} ${unit}.`
  }
  return ''
}
