// The catalogue of charge points: those that ship and the user's own. A record fills in the facts of its kind.
import { onMounted, ref } from 'vue'

import { answer, api, asProblem } from '../../../api/client'
import type { ChargePointRecord } from '../../../api/types'
import { useJob } from '../../../job/useJob'

export function useRecords() {
  const store = useJob()
  const shipped = ref<ChargePointRecord[]>([])
  const own = ref<ChargePointRecord[]>([])
  const failed = ref('')

  async function attempt(what: () => Promise<unknown>): Promise<boolean> {
    try {
      await what()
      const found = await answer<{ shipped: ChargePointRecord[]; own: ChargePointRecord[] }>(
        api.GET('/api/v1/charge-points'),
      )
      shipped.value = found.shipped
      own.value = found.own
      failed.value = ''
      return true
    } catch (error) {
      failed.value = asProblem(error).detail
      return false
    }
  }

  function take(record: ChargePointRecord): void {
    const at = `charge_points.${store.pointIndex}`
    const facts = Object.entries(record.facts).map(([field, value]) => ({ field: `${at}.${field}`, value }))
    store.changeAll([...facts, { field: `${at}.record`, value: record.id }], `the facts of ${record.name}`)
  }
  const keep = (record: { id: string; [field: string]: unknown }) =>
    attempt(() =>
      answer(
        api.PUT('/api/v1/charge-points/{record_id}', {
          params: { path: { record_id: record.id } },
          body: record as never,
        }),
      ),
    )
  const remove = (id: string) =>
    attempt(() => answer(api.DELETE('/api/v1/charge-points/{record_id}', { params: { path: { record_id: id } } })))

  onMounted(() => attempt(async () => undefined))
  return { shipped, own, failed, take, keep, remove }
}
