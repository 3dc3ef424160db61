import { TidebookError } from "./errors.js";
import type { AnswerTo, Berth, Instant, Tide, TideKind } from "./model.js";

/** How a {@link TidebookClient} asks. */
export interface ClientOptions {
  /** Milliseconds until a request is given up. */
  timeout?: number;
  /** What asks; the browser's own where it is left out. */
  fetch?: typeof globalThis.fetch;
}

/** A connection to one service. */
export class TidebookClient {
  private closed = false;

  /**
   * @param address - Where the service is, without a slash at the end.
   * @param options - How to ask.
   */
  constructor(
    readonly address: string,
    protected readonly options: ClientOptions = {},
  ) {}

  /**
   * Asks for the berths of a harbour.
   *
   * @param harbour - The harbour's short name.
   * @returns Its berths.
   */
  berths(harbour: string): Promise<Berth[]>;
  berths(harbour: string, name: string): Promise<Berth | undefined>;
  async berths(harbour: string, name?: string): Promise<Berth[] | Berth | undefined> {
    const all = await this.get<Berth[]>(`harbours/${harbour}/berths`);
    return name === undefined ? all : all.find((berth) => berth.name === name);
  }

  /**
   * Gives the tides of the coming days, in order.
   *
   * @param harbour - The harbour's short name.
   * @param until - Where to stop.
   * @param until - When to stop.
   * @yields One tide after the other.
   */
  async *tides(harbour: string, until?: Instant, kind?: TideKind): AsyncGenerator<Tide, void> {
    for (const tide of await this.get<Tide[]>(`harbours/${harbour}/tides`)) {
      if (until !== undefined && tide.at > until) return;
      if (!kind || tide.kind === kind) yield tide;
    }
  }

  /** Asks for anything that the service knows by a key. */
  answer<Key extends string>(key: Key): Promise<AnswerTo<Key>> {
    return this.get(key);
  }

  /**
   * Closes the connection. Closing twice does nothing.
   *
   * @retruns Nothing that matters.
   */
  close(): void {
    this.closed = true;
  }

  /** Asks the service for what stands at a path. */
  protected async get<T>(path: string): Promise<T> {
    if (this.closed) throw new TidebookError("the client is closed", 0, path);
    const answer = await (this.options.fetch ?? fetch)(`${this.address}/${path}`);
    if (!answer.ok) throw new TidebookError(answer.statusText, answer.status, path);
    return (await answer.json()) as T;
  }

  watch(harbour: string, show: (tide: Tide) => void): () => void {
    const timer = setInterval(() => void this.tides(harbour).next().then(({ value }) => value && show(value)), 60_000);
    return () => clearInterval(timer);
  }
}

/**
 * Makes a client that has answered once.
 *
 * @param address - Where the service is.
 * @param options - How to ask.
 * @throws {@link TidebookError} If the service does not answer.
 */
export async function connect(address: string, options?: ClientOptions): Promise<TidebookClient> {
  const client = new TidebookClient(address, options);
  await client.berths("norhaven");
  return client;
}
