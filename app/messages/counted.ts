/** A number of things with their noun in the right number: '1 run', '5 runs'. */
export const counted = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? "" : "s"}`;
