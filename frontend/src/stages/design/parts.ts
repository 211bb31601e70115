// The parts of the design, in the order they are usually gone through.
export const PARTS = [
  { part: '', words: 'The circuit' },
  { part: 'boards', words: 'Boards' },
  { part: 'others', words: 'Other ways' },
  { part: 'materials', words: 'Materials' },
  { part: 'arrangements', words: 'Arrangements' },
  { part: 'bench', words: 'PEN bench' },
  { part: 'electrode', words: 'Electrode' },
  { part: 'chain', words: 'RCDs' },
]

/** The parts about protecting people: their checks are listed beside them. */
export const PROTECTING = ['arrangements', 'bench', 'electrode', 'chain']
