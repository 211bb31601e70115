// Whether current may pass devices both ways: the house generates, or a car may feed back.
import { computed } from 'vue'

import { useJob } from '../../job/useJob'

export function useBothWays() {
  const store = useJob()
  return computed(
    () =>
      store.job!.supply.own_generation === 'yes' || store.job!.charge_points.some((one) => one.feeds_back === 'yes'),
  )
}
