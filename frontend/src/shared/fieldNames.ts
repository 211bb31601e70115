// What each field is called on screen, remembered as it is shown: who changed a field has read its name there.
import { useLocalStorage } from '@vueuse/core'

const names = useLocalStorage<Record<string, string>>('fulmen-field-names', {})

/** The same field of every circuit or section has one name. */
const kindOf = (path: string) => path.replace(/\.\d+(?=\.|$)/g, '.*')

export function rememberName(path: string, label: string): void {
  if (names.value[kindOf(path)] !== label) names.value = { ...names.value, [kindOf(path)]: label }
}

export const nameOnScreen = (path: string): string | undefined => names.value[kindOf(path)]
