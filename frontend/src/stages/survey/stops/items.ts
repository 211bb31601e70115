// Answers to tap that are figures: sizes and ratings as they are made.
const amps = (value: number) => ({ value, words: `${value} A` })
const mm2 = (value: number) => ({ value, words: `${value} mm²` })

export const FUSES = [60, 80, 100, 125, 160, 200].map(amps)
export const TAILS = [10, 16, 25, 35, 50, 70, 95].map(mm2)
export const EARTHS = [4, 6, 10, 16, 25].map(mm2)
export const CURRENTS = [16, 20, 25, 32].map(amps)
export const PHASES = [
  { value: 1, words: 'one' },
  { value: 3, words: 'three' },
]
export const YES_NO = [
  { value: true, words: 'yes' },
  { value: false, words: 'no' },
]
export const TETHERED = [
  { value: true, words: 'tethered' },
  { value: false, words: 'socket' },
]
export const IP = ['IP24', 'IP44', 'IP54', 'IP55', 'IP65', 'IP66'].map((value) => ({ value, words: value }))
