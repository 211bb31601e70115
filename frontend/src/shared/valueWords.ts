// A field's value in words, as a choice names it.
import { useCatalogue } from './useCatalogue'

/** What has no short words is told by how much there is of it. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.length === 1 ? '1 entry' : `${value.length} entries`
  if (typeof value === 'object') return 'several facts'
  const known = Object.values(useCatalogue().catalogue.value?.choices ?? {}).flat()
  return known.find((option) => option.value === value)?.words ?? String(value)
}
