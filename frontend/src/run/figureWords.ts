// The figures of a section or a node in one line, for hover, tap, arrow keys and screen readers.
import type { GuardView, ProfileNode, ProfileSection } from '../api/types'

export function sectionWords(section: ProfileSection): string {
  const against = `device ${section.device_a.toFixed(0)} A, load ${section.load_a.toFixed(0)} A`
  const carries = section.iz_a === null ? 'no rating' : `carries ${section.iz_a.toFixed(1)} A, ${against}`
  const warm = section.conductor_c === null ? '' : `, conductor ${section.conductor_c.toFixed(0)} °C`
  const what = `${section.name}, ${section.length_m} m of ${section.cable}, method ${section.method}`
  return `${section.index + 1} ${what}: ${carries}${warm}; at its end ${lost(section)}`
}

export function nodeWords(node: ProfileNode): string {
  const fault = node.fault_ka === null ? '' : `, fault current to ${node.fault_ka.toFixed(2)} kA`
  const load = node.load_a === null ? '' : `, load ${node.load_a.toFixed(0)} A`
  return `${node.name}: ${node.notes.join(', ')}; ${lost(node)}${fault}${load}`
}

function lost(at: ProfileNode | ProfileSection): string {
  return `${at.volts_lost_v.toFixed(2)} V lost, loop ${at.loop_ohm.toFixed(3)} Ω`
}

/** What a guard is, what it opens, what it sees, and what goes off with it. */
export function guardWords(guard: GuardView): string {
  const sees = guard.sees ? `; sees ${guard.sees}` : ''
  return `${guard.name} ${guard.where}: opens ${guard.opens}${sees}; with it goes off ${guard.behind}`
}
