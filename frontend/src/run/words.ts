// The figures of a section or a node in one line, for hover, tap, arrow keys and screen readers.
import type { ProfileNode, ProfileSection } from '../api/types'

export function sectionWords(section: ProfileSection): string {
  const carries = section.iz_a === null ? 'no rating' : `carries ${section.iz_a.toFixed(1)} A, device ${section.device_a.toFixed(0)} A, load ${section.load_a.toFixed(0)} A`
  const warm = section.conductor_c === null ? '' : `, conductor ${section.conductor_c.toFixed(0)} °C`
  return `${section.index + 1} ${section.name}, ${section.length_m} m of ${section.cable}, method ${section.method}: ${carries}${warm}; at its end ${section.volts_lost_v.toFixed(2)} V lost, loop ${section.loop_ohm.toFixed(3)} Ω`
}

export function nodeWords(node: ProfileNode): string {
  const fault = node.fault_ka === null ? '' : `, fault current to ${node.fault_ka.toFixed(2)} kA`
  const load = node.load_a === null ? '' : `, load ${node.load_a.toFixed(0)} A`
  return `${node.name}: ${node.notes.join(', ')}; ${node.volts_lost_v.toFixed(2)} V lost, loop ${node.loop_ohm.toFixed(3)} Ω${fault}${load}`
}
