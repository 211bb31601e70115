// What a guard may be marked with, to choose from.
const NOT_SEEN = { value: null, words: 'not seen yet' }
export const POLES = [NOT_SEEN, ...[1, 2, 3, 4].map((value) => ({ value, words: `${value}` }))]
export const VOLTS = [NOT_SEEN, ...[230, 400].map((value) => ({ value, words: `${value} V` }))]
