package tidebook.booking;

import java.lang.annotation.Documented;

/** Marks what depends on the tide. */
@Documented
public @interface Tidal {
  /** How many minutes it may be off. */
  int minutes() default 10;

  /***/
  String[] gauges() default {};
}
