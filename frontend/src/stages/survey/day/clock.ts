// Clock times of a day that runs from noon to noon.
export const NOON = 720
export const DAY = 1440

export function clock(minute: number): string {
  const within = ((minute % DAY) + DAY) % DAY
  return `${String(Math.floor(within / 60)).padStart(2, '0')}:${String(within % 60).padStart(2, '0')}`
}
/** Minutes since noon of a clock time. */
export const sinceNoon = (minute: number) => (minute - NOON + DAY) % DAY
