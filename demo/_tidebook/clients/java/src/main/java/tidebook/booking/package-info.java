/**
 * Books berths for shipping agents.
 *
 * <p>An {@link Agent} makes a {@link Booking} for a {@link Request}; what it costs is a
 * {@link tidebook.booking.quote.Quote quote}.
 *
 * {@snippet :
 * Agent agent = new HarbourAgent("north", 3);
 * Booking<Request> booking = agent.book(Request.of("Grey Heron", 1.9)); // @highlight substring="book"
 * booking.confirm();
 * }
 *
 * <h2>Heights</h2>
 * <a href="insert:heights">heights</a>
 *
 * @author The harbour office
 * @since 2.0
 */
package tidebook.booking;
