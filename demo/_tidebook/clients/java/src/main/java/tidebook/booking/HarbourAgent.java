package tidebook.booking;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import tidebook.booking.quote.Quote;
import tidebook.booking.quote.Tariff;

/**
 * An agent that asks one harbour.
 *
 * <p>Up to <b>three tries are made, see <a href="ref:tide.Predictor">the tides</a>.
 */
public final class HarbourAgent implements Agent {
  private final String harbour;
  private final List<Booking<?>> all = new ArrayList<>();

  /** How often it asks. */
  @Tidal public final int tries;

  /**
   * Makes an agent.
   *
   * @param port the harbour's short name
   * @param tries how often it asks
   */
  public HarbourAgent(String harbour, int tries) {
    this.harbour = harbour;
    this.tries = tries;
  }

  /**
   * {@inheritDoc}
   *
   * <p>It is not confirmed before the harbour has answered.
   */
  @Override
  public <R extends Request> Booking<R> book(R request) throws Full {
    Booking<R> booking = new Kept<>(request, harbour);
    all.add(booking);
    return booking;
  }

  @Override
  public Booking<Request> book(Request request, int hours) throws Full {
    if (hours > LONGEST) {
      throw new Full(harbour);
    }
    return book(request);
  }

  @Override
  public List<Booking<?>> of(String vessel) {
    return all.stream().filter(booking -> booking.request().vessel().equals(vessel)).toList();
  }

  /** Gives the line to the harbour, which users have no name for. */
  public Line line() {
    return null;
  }

  @Override
  public void close() {
    all.clear();
  }

  private static final class Kept<R extends Request> extends Booking<R> {
    private final String harbour;

    Kept(R request, String harbour) {
      super(request);
      this.harbour = harbour;
    }

    @Override
    public Quote move(Instant from, int hours) {
      return new Tariff(harbour).quote(request(), hours);
    }
  }

  static class Line {}
}
