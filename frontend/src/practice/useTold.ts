// Asking something of the server: what was refused is told, and stays told until something is asked again.
import { ref } from 'vue'

import { asProblem } from '../api/client'

export function useTold() {
  const failed = ref('')

  async function told<T>(what: () => Promise<T>): Promise<T | undefined> {
    failed.value = ''
    try {
      return await what()
    } catch (error) {
      failed.value = asProblem(error).detail
      return undefined
    }
  }
  return { failed, told }
}
