package tidebook.booking;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * Who books berths.
 *
 * <p>Agents differ in how they ask:
 * <ul>
 *   <li>{@link HarbourAgent} asks one harbour,
 *   <li>others may ask <em>several</em> and take the first that answers.
 * </ul>
 *
 * @see HarbourAgent
 * @see "The harbour's rules, page 12"
 */
public interface Agent extends AutoCloseable {
  /** The most hours that an agent may book at once, {@value}. */
  int LONGEST = 72;

  /**
   * Books a berth.
   *
   * @param <R> what is asked for
   * @param request what is asked for
   * @return the booking, which is not yet {@linkplain Booking#confirm() confirmed}
   * @throws Full where there is no berth left
   */
  <R extends Request> Booking<R> book(R request) throws Full;

  /**
   * Books a berth for some hours.
   *
   * @param request what is asked for
   * @param hours how long, at most {@link #LONGEST}
   * @return the booking
   * @throws Full where there is no berth left
   */
  Booking<Request> book(Request request, int hours) throws Full;

  /**
   * Finds the bookings of a vessel.
   *
   * @param vessel the vessel's name
   * @return its bookings, the next one first
   */
  List<Booking<?>> of(String vessel);

  /**
   * Tells how long one has to wait for a berth.
   *
   * @param request what is asked for
   * @return the time, or nothing where nobody knows
   */
  default Optional<Duration> delay(Request request) {
    return Optional.empty();
  }

  /** Stops asking. */
  @Override
  void close();

  /** Thrown where all berths are taken. */
  class Full extends Exception {
    private static final long serialVersionUID = 1;

    /**
     * Makes one.
     *
     * @param harbour which harbour is full
     */
    public Full(String harbour) {
      super(harbour + " is full");
    }
  }
}
