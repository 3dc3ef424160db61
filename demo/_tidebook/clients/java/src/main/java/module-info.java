/** Books berths for shipping agents. */
module tidebook.booking {
  exports tidebook.booking;
  exports tidebook.booking.quote;
}
