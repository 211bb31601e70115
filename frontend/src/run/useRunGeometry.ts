// Where everything on the run band lies. From the board on it is to scale; the stretch before the board is not,
// since tails are short and must still be seen. Drawing only: every figure comes from the core's profile.
import { scaleLinear } from 'd3-scale'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import type { ProfileNode, RunProfile } from '../api/types'

const LABELS_PX = 118
const BEFORE_BOARD_PX = 156
const VALUES_PX = 176
const NARROW_PX = 16
const CHARACTER_PX = 6.6
const LEAST_PX = 200
const HALF_NODE_PX = 12

export interface SectionPlace {
  index: number
  x1: number
  x2: number
  label: string
}
export interface NodePlace {
  node: ProfileNode
  x: number
}

/** `narrow` leaves no room beside the tracks: titles and figures stand above them. */
export function useRunGeometry(
  profile: MaybeRefOrGetter<RunProfile>,
  width: MaybeRefOrGetter<number>,
  narrow: MaybeRefOrGetter<boolean>,
) {
  const cutOutX = computed(() => (toValue(narrow) ? NARROW_PX : LABELS_PX + 16))
  const boardX = computed(() => cutOutX.value + (toValue(narrow) ? 2 * NARROW_PX : BEFORE_BOARD_PX))
  const endX = computed(() =>
    // While the page is being laid out there is no width yet: the drawing keeps a least one, so nothing is negative.
    Math.max(boardX.value + LEAST_PX, toValue(width) - (toValue(narrow) ? NARROW_PX : VALUES_PX)),
  )
  const nodePx = computed(() => (toValue(narrow) ? 0 : 18))
  const alongX = computed(() =>
    scaleLinear([0, toValue(profile).length_m || 1], [boardX.value + nodePx.value, endX.value - nodePx.value]),
  )

  const atNode = (distance: number) =>
    between.value.some((one) => Math.abs(one.node.at_m - distance) < 1e-6) ? HALF_NODE_PX : 0
  const sections = computed<SectionPlace[]>(() =>
    toValue(profile).sections.map((section) => {
      const x1 = alongX.value(section.from_m)
      const x2 = alongX.value(section.to_m)
      const full = `${section.name} ${section.length_m} m`
      // A board or a joint at either end takes its half of the room.
      const room = x2 - x1 - 6 - (atNode(section.from_m) + atNode(section.to_m))
      const label = [full, `${section.length_m} m`].find((text) => text.length * CHARACTER_PX < room) ?? ''
      return { index: section.index, x1, x2, label }
    }),
  )

  /** Boards past the first one, and joints, where they stand. */
  const between = computed<NodePlace[]>(() =>
    toValue(profile)
      .nodes.filter((node) => node.at_m > 0 && node.kind !== 'charge_point')
      .map((node) => ({ node, x: alongX.value(node.at_m) })),
  )

  /** A distance from the board on the drawing; null is the cut-out, before the board. */
  function along(distance: number | null): number {
    if (distance === null) return cutOutX.value
    return distance === 0 ? boardX.value : alongX.value(distance)
  }

  return { cutOutX, meterX: computed(() => cutOutX.value + 76), boardX, endX, sections, between, along }
}
