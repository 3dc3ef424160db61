package tidebook.booking.quote;

import tidebook.booking.Request;

/**
 * What a berth costs.
 *
 * @param request what it is for
 * @param hours how long
 * @param cents the price, in cents
 */
public record Quote(Request request, int hours, long cents) {
  /**
   * Adds something.
   *
   * @param more how much, in cents
   * @return the dearer quote
   */
  public Quote plus(long more) {
    return new Quote(request, hours, cents + more);
  }
}
