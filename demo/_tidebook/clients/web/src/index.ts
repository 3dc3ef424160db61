/**
 * Tides and berths for programs in a browser.
 *
 * ```ts
 * import { TidebookClient } from "@tidebook/web";
 *
 * const client = new TidebookClient("https://tidebook.example/api");
 * for await (const tide of client.tides("norhaven")) console.log(tide.height);
 * ```
 *
 * @packageDocumentation
 */
export { TidebookClient, connect, type ClientOptions } from "./client.js";
export { TidebookError, isRetryable } from "./errors.js";
export * from "./model.js";
export * as units from "./units.js";
export { inFathoms } from "./units.js";
