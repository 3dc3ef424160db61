package tidebook.booking;

import java.time.Instant;
import java.util.Objects;
import tidebook.booking.quote.Quote;

/**
 * A booking of one berth.
 *
 * @param <R> what was asked for
 */
public abstract class Booking<R extends Request> implements Comparable<Booking<R>> {
  private final R request;
  private State state = State.ASKED;

  /**
   * Makes a booking.
   *
   * @param request what was asked for
   */
  protected Booking(R request) {
    this.request = Objects.requireNonNull(request);
  }

  /** {@return what was asked for} */
  public R request() {
    return request;
  }

  /** {@return the state that the booking is in, see {@link State#CONFIRMED}} */
  public State state() {
    return state;
  }

  /**
   * Confirms the booking.
   *
   * @throws IllegalStateException where it was {@link State#GONE given up}
   */
  public void confirm() {
    if (state == State.GONE) {
      throw new IllegalStateException("the booking is gone");
    }
    state = State.CONFIRMED;
  }

  /**
   * Moves the booking.
   *
   * @param from when it begins
   * @return what it costs then
   */
  public abstract Quote move(Instant from, int hours) throws Agent.Full;

  /**
   * Gives the booking up, see {@link Request#draft()}.
   *
   * @retrun nothing
   */
  public void giveUp() {
    state = State.GONE;
  }

  public final boolean isOpen() {
    return state == State.ASKED;
  }

  /**
   * @deprecated
   */
  @Deprecated
  public String code() {
    return request.vessel();
  }

  @Override
  public int compareTo(Booking<R> other) {
    return request.vessel().compareTo(other.request.vessel());
  }

  /** What a booking may be. */
  public enum State {
    /** Nobody has answered. */
    ASKED,
    /** The berth is kept. */
    CONFIRMED {
      @Override
      boolean last() {
        return true;
      }
    },
    /** It was given up. */
    GONE;

    boolean last() {
      return false;
    }
  }
}
