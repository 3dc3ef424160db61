package tidebook.booking.quote;

import tidebook.booking.Request;

/** The prices of one harbour. */
public class Tariff {
  /** Cents for an hour. */
  public static final long HOUR = 250;

  private final String harbour;

  /**
   * Makes a tariff.
   *
   * @param harbour the harbour's short name
   */
  public Tariff(String harbour) {
    this.harbour = harbour;
  }

  /**
   * Adds up {@link #HOUR} cents for each hour.
   *
   * @param request what is asked for
   * @param hours how long
   */
  public Quote quote(Request request, int hours) {
    return new Quote(request, hours, HOUR * hours).plus(harbour.length());
  }
}
