/** Metres, feet and fathoms. */
export const METRES_PER_FOOT = 0.3048;

/** Makes metres of feet. */
export const fromFeet = (feet: number): number => feet * METRES_PER_FOOT;

/**
 * Writes a height as people at the quay say it.
 *
 * @param metres - The height.
 * @param options - How to write it.
 * @param options.digits - Digits behind the point.
 * @param options.unit - The unit's name.
 * @param options.plus - Whether to put a sign before heights.
 */
export function spoken(metres: number, { digits = 1, unit = "m" }: { digits?: number; unit?: string } = {}): string {
  return `${metres.toFixed(digits)} ${unit}`;
}
