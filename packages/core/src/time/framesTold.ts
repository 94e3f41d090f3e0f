/** Frames as they are told: "frame 3", "frames 3–8". From 0, up to but not with. */
export const framesTold = (from: number, to: number): string =>
  to - from > 1 ? `frames ${from + 1}–${to}` : `frame ${from + 1}`
