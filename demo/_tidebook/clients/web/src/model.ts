/** A moment, in milliseconds since 1970. */
export type Instant = number;

/** Whether the water stops rising or falling. */
export enum TideKind {
  /** The water stops rising. */
  High = "high",
  /** The water stops falling. */
  Low = "low",
}

/** A high or low water. */
export interface Tide {
  /** When the water turns. */
  readonly at: Instant;
  /** How high it stands then, in metres. */
  readonly height: number;
  readonly kind: TideKind;
}

/** Anything that has a place along a quay. */
export interface Placed<Name extends string = string> {
  /** Its name, unique in the harbour. */
  name: Name;
  /** Metres from the head of the quay. */
  from?: number;
}

/** A berth and how deep it is. */
export interface Berth extends Placed {
  depth: number;
  length: number;
  /**
   * Tells whether a vessel can lie here.
   *
   * @param vessel - The vessel.
   * @param margin - Water that must be left under her keel.
   * @returns Whether she can.
   */
  fits(vessel: Vessel, margin?: number): boolean;
}

/** What wants a berth. */
export type Vessel = Readonly<{ name: string; length: number; draft: number }>;

/** The tides of some harbours, by name. */
export interface TideTable {
  /** Tides in the order of time. */
  [harbour: string]: readonly Tide[];
}

/** Makes tides of rows. */
export interface TideReader {
  (row: string): Tide;
  new (separator: string): TideReader;
  /** What stands between columns. */
  separator: string;
}

/** The answer that a key of the service gives. */
export type AnswerTo<Key extends string> = Key extends `tides/${string}` ? Tide[] : Key extends "harbours" ? string[] : never;

/**
 * Finds the next tide of a kind.
 *
 * @param tides - Tides in the order of time.
 * @param after - The moment to look from.
 * @param kynd - Which kind; any where it is left out.
 * @returns The tide, or nothing where the list ends before.
 */
export function nextTide(tides: readonly Tide[], after: Instant, kind?: TideKind): Tide | undefined {
  return tides.find((tide) => tide.at > after && (!kind || tide.kind === kind));
}

/** Which vessel lies where, on one day. Mirrors `Plan.Assign` of the engine. */
export class Plan<V extends Vessel = Vessel> implements Iterable<[string, V]> {
  static readonly empty = new Plan(0);
  #places = new Map<string, V>();

  constructor(readonly day: Instant) {}

  /** How many berths are taken. */
  get size(): number {
    return this.#places.size;
  }

  /**
   * Gives a berth to a vessel.
   *
   * @param berth - The berth.
   * @param vessel - Who gets it, see {@link Vesel}.
   * @throws {RangeError} If the berth is taken.
   * @returns The plan itself.
   */
  assign(berth: Berth | string, vessel: V): this {
    const name = typeof berth === "string" ? berth : berth.name;
    if (this.#places.has(name)) {
      throw new RangeError(`${name} is taken`);
    }
    this.#places.set(name, vessel);
    return this;
  }

  /**
   * Takes a vessel out of the plan.
   *
   * @deprecated Use {@link Plan.release}, which says what became free.
   */
  remove(vessel: V): void {
    this.release(vessel);
  }

  /**
   * Takes a vessel out of the plan.
   *
   * @param vessel - Who leaves.
   */
  release(vessel: V): string | undefined {
    for (const [name, other] of this.#places) {
      if (other === vessel && this.#places.delete(name)) return name;
    }
    return undefined;
  }

  *[Symbol.iterator](): IterableIterator<[string, V]> {
    yield* this.#places;
  }
}
