// A route whose sections change places: what is kept by a section's place follows it.
import type { Job, Section } from '../../../api/types'
import type { FieldChange } from '../../../job/useUndo'

/** `from` tells of each section, in its new order, where it stood, or the one that it was part of. */
export function withSections(
  job: Job,
  circuit: number,
  from: readonly number[],
  route: readonly Section[] = from.map((place) => job.circuits[circuit]!.route[place]!),
): FieldChange[] {
  const { boxes } = job.circuits[circuit]!
  const at = `circuits.${circuit}.route`
  const isOf = (path: string) => path.startsWith(`${at}.`)
  const others = Object.entries(job.known_how).filter(([path]) => !isOf(path))
  const own = Object.entries(job.known_how).filter(([path]) => isOf(path))
  const followed = own.flatMap(([path, how]) => {
    const [place, ...rest] = path.slice(at.length + 1).split('.')
    const now = from.flatMap((was, is) => (was === Number(place) ? [is] : []))
    return now.map((is) => [[at, is, ...rest].join('.'), how] as const)
  })
  // A box hangs after so many sections: there may be fewer of them before it now, or more.
  const before = (sections: number) => from.filter((place) => place < sections).length
  const stays = from.length === job.circuits[circuit]!.route.length
  const hung = boxes.map((box) =>
    box.after_section === null || stays ? box : { ...box, after_section: before(box.after_section) },
  )
  return [
    { field: at, value: route },
    { field: `circuits.${circuit}.boxes`, value: hung },
    { field: 'known_how', value: Object.fromEntries([...others, ...followed]) },
  ]
}
