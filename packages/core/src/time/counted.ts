/** A number of things in words: "1 frame", "12 frames"; `many` where the plural is not made with an s. Whole numbers. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`
