// A new section, and the reference method that surroundings usually mean.
import type { Section } from '../../api/types'

export const METHOD_FOR: Record<Section['surroundings'], Section['method']> = {
  clipped: 'C',
  in_wall: 'A',
  through_wall: 'C',
  under_floor: 'C',
  loft: '100',
  conduit_or_trunking: 'B',
  tray: 'E',
  buried: 'D',
  duct: 'D',
  post: 'E',
}

/** The section after another: clipped, one metre, as many circuits beside it as before. */
export function newSection(before: Section | undefined): Section {
  return {
    surroundings: 'clipped',
    method: 'C',
    length_m: 1,
    temperature_c: null,
    grouped_circuits: before?.grouped_circuits ?? 1,
    single_layer: false,
    insulation_mm: 0,
    soil_km_per_w: 2.5,
    depth_m: 0.7,
    in_duct: false,
    concealed_under_50_mm: false,
  }
}
