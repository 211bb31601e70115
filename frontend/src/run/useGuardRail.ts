// Where the guards of a run are drawn: in a row of their own beneath the chain, each as near to its place as its
// neighbours leave room, in the order in which current meets them. Nothing overlaps, with two of them or with ten.
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import type { GuardView } from '../api/types'

// What a character of the figures' type takes at 12 px, measured.
const CHARACTER_PX = 7.6
const WIDEST_PX = 104

export interface RailPlace {
  guard: GuardView
  /** Where it stands on the chain, and where it is drawn. */
  from: number
  x: number
  lines: string[]
}

/** Positions as near as can be to the wanted ones, in order, at least `gap` apart, between two ends. */
export function spread(wanted: number[], gap: number, low: number, high: number): number[] {
  // Neighbours that would come too close move as one block, about the mean of where they want to be.
  const blocks: { sum: number; count: number }[] = []
  for (const [index, x] of wanted.entries()) {
    blocks.push({ sum: x - index * gap, count: 1 })
    while (blocks.length > 1) {
      const [before, last] = blocks.slice(-2) as [(typeof blocks)[0], (typeof blocks)[0]]
      if (before.sum / before.count <= last.sum / last.count) break
      blocks.splice(-2, 2, { sum: before.sum + last.sum, count: before.count + last.count })
    }
  }
  const most = high - (wanted.length - 1) * gap
  return blocks
    .flatMap((block) => Array<number>(block.count).fill(block.sum / block.count))
    .map((x, index) => Math.max(low, Math.min(most, x)) + index * gap)
}

/** A caption in at most two lines of so many characters. */
export function captionLines(words: string, most: number): string[] {
  if (words.length <= most) return [words]
  const parts = words.split(' ')
  const splits = parts
    .slice(1)
    .map((_, index) => [parts.slice(0, index + 1).join(' '), parts.slice(index + 1).join(' ')])
  const longest = (pair: string[]) => Math.max(...pair.map((one) => one.length))
  return splits.sort((one, other) => longest(one) - longest(other))[0] ?? [words]
}

export function useGuardRail(
  guards: MaybeRefOrGetter<readonly GuardView[]>,
  ends: MaybeRefOrGetter<{ low: number; high: number }>,
  along: (guard: GuardView) => number,
) {
  const places = computed<RailPlace[]>(() => {
    const now = toValue(guards)
    const { low, high } = toValue(ends)
    const gap = Math.min(WIDEST_PX, (high - low) / Math.max(1, now.length))
    const from = now.map(along)
    const x = spread(from, gap, low + gap / 2, high - gap / 2)
    const most = Math.floor(gap / CHARACTER_PX)
    return now.map((guard, index) => ({
      guard,
      from: from[index]!,
      x: x[index]!,
      lines: captionLines(guard.short, most),
    }))
  })
  return { places }
}
