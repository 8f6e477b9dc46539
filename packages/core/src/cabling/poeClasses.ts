/** What a class of power over Ethernet is, at the source and at the device. */
export interface PoeClass {
  /** Power the source holds ready, and power that arrives at the end of 100 m, in watts. */
  sourceW: number;
  deviceW: number;
  /** Least voltage of such a source, and whether all four pairs carry the current. */
  volts: number;
  fourPairs: boolean;
}

/** Classes 1 to 8 (IEEE 802.3-2022 tables 145-11, 145-16 and 145-26). Class 0 counts as 3. */
export const poeClasses: Readonly<Record<number, PoeClass>> = {
  1: { sourceW: 4, deviceW: 3.84, volts: 44, fourPairs: false },
  2: { sourceW: 7, deviceW: 6.49, volts: 44, fourPairs: false },
  3: { sourceW: 15.4, deviceW: 13, volts: 44, fourPairs: false },
  4: { sourceW: 30, deviceW: 25.5, volts: 50, fourPairs: false },
  5: { sourceW: 45, deviceW: 40, volts: 50, fourPairs: true },
  6: { sourceW: 60, deviceW: 51, volts: 50, fourPairs: true },
  7: { sourceW: 75, deviceW: 62, volts: 52, fourPairs: true },
  8: { sourceW: 90, deviceW: 71.3, volts: 52, fourPairs: true },
};
