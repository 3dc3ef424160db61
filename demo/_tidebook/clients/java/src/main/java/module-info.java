/**
 * Books berths for shipping agents: {@link tidebook.booking} asks for a berth, and
 * {@link tidebook.booking.quote} for what it costs.
 */
module tidebook.booking {
  exports tidebook.booking;
  exports tidebook.booking.quote;
  opens tidebook.booking.quote to tidebook.ledger;
}
