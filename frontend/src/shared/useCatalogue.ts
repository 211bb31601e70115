// The catalogue: choices with their words, cables, the caution. Read once.
import { ref } from 'vue'

import { answer, api, asProblem } from '../api/client'
import type { Catalogue, Option, Step, StepText } from '../api/types'

const catalogue = ref<Catalogue>()
const failed = ref('')

async function load(): Promise<void> {
  failed.value = ''
  try {
    catalogue.value = await answer<Catalogue>(api.GET('/api/v1/catalogue'))
  } catch (error) {
    failed.value = asProblem(error).detail
  }
}

function options(kind: string): Option[] {
  return catalogue.value?.choices[kind] ?? []
}

function words(kind: string, value: string): string {
  return options(kind).find((option) => option.value === value)?.words ?? value
}

/** What is told of every such step: how, why, what can be hurt. */
function stepText(step: Pick<Step, 'reference'>): StepText | undefined {
  return catalogue.value?.steps[step.reference]
}

export function useCatalogue() {
  return { catalogue, failed, load, options, words, stepText }
}
