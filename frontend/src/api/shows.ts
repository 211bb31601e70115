// What the page shows of a job: the server answers with no more, and works out no more.
import { ref } from 'vue'

export type Shows = 'all' | 'design' | 'tests' | 'papers'

export const SHOWS = 'Fulmen-Shows'
const AT: Record<string, Shows> = {
  survey: 'design',
  design: 'design',
  dead: 'tests',
  live: 'tests',
  papers: 'papers',
}
export const shows = ref<Shows>('all')

/** The page goes to another stage. */
export function showStage(stage: unknown): void {
  shows.value = AT[String(stage)] ?? 'all'
}
