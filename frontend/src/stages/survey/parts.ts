// The parts of the survey: the stops of the walk from the street inwards, then what follows from them.
import type { Stop } from '../../api/types'

export type PartKey = Stop | 'open' | 'day' | 'operator'

export const LOOK: Record<Stop, string> = {
  cut_out: 'Where the street cable ends. Look at the block and at every cable in and out of it.',
  meter: 'What counts, and what can make the tails dead.',
  tails: 'From meter to board.',
  earth: 'Follow each green-yellow conductor to where it ends.',
  board: 'Flap up, then lid off with the supply isolated.',
  route: 'Walk it, inside and out, from the board to the car.',
  parking: 'Where the car stands, and where the unit goes.',
  data: 'Try it with the phone, at the place itself.',
  loads: 'What the house draws, and what must carry it.',
  ownership: 'Whose it is, and what the papers are called.',
  charge_point: 'What is inside decides what must stand before it.',
}

export const FOLLOWS: { key: PartKey; title: string }[] = [
  { key: 'open', title: 'Open questions' },
  { key: 'day', title: 'A day on the supply' },
  { key: 'operator', title: 'Network operator' },
]
