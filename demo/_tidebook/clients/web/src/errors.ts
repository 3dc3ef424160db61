/** What the service, or the way to it, refused. */
export class TidebookError extends Error {
  /** What the service answered, or 0 where it did not answer. */
  readonly status: number;

  constructor(
    message: string,
    status = 0,
    /** What was asked for. */
    public readonly path?: string,
  ) {
    super(message);
    this.status = status;
  }

  /** Whether asking again may help. */
  get temporary(): boolean {
    return this.status === 0 || this.status >= 500;
  }
}

/**
 * Tells whether a failure is worth a second try.
 *
 * @param error - What was thrown.
 * @returns Whether it is a {@link TidebookError} of the temporary kind.
 */
export function isRetryable(error: unknown): error is TidebookError {
  return error instanceof TidebookError && error.temporary;
}
