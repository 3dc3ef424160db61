package tidebook.booking;

/// What an agent asks for.
///
/// | draught | berth  |
/// |--------:|--------|
/// | to 2 m  | any    |
/// | above   | *deep* |
///
/// @param vessel the vessel's name
/// @param draught how deep it lies, in metres
public record Request(String vessel, double draught) {
  /** Refuses a draught that no vessel has. */
  public Request {
    if (draught <= 0) {
      throw new IllegalArgumentException("a vessel lies deeper than that");
    }
  }

  /**
   * Makes a request.
   *
   * @param vessel the vessel's name
   * @param draught how deep it lies, in metres
   * @return the request
   */
  public static Request of(String vessel, double draught) {
    return new Request(vessel, draught);
  }

  /**
   * Tells whether a berth is deep enough.
   *
   * @param depth of the berth, in metres
   * @param depth of the water, in metres
   * @return whether there is water enough
   */
  public boolean fits(double depth) {
    return depth > draught;
  }
}
