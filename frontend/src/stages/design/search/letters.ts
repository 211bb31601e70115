/** The letter that names a way, on the plot and on its card. */
export const letterOf = (index: number): string => String.fromCharCode(65 + index)
