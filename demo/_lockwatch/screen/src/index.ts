/**
 * The screen at the lock.
 *
 * @packageDocumentation
 */
import { TidebookClient, TidebookError, type ClientOptions } from "@tidebook/web";

/** The lock does not answer; {@link TidebookError.status} says what the service said. */
export class LockSilent extends TidebookError {
  override get temporary(): boolean {
    return true;
  }
}

/**
 * Shows the tides of a harbour until the page is left.
 *
 * @param client - Where tides come from; {@link connect} of `@tidebook/web` makes one.
 * @param options - What a {@link TidebookClient} takes.
 * @throws {@link LockSilent} if the service is down.
 */
export function show(client: TidebookClient, options: ClientOptions): void {}
