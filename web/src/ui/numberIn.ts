/** The number that somebody typed, with a point or a comma; not a number if it is none. */
export const numberIn = (typed: string) => (typed.trim() === '' ? NaN : Number(typed.replace(',', '.')))
