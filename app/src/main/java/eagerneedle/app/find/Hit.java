package eagerneedle.app.find;

/**
 * Something that can be found and gone to.
 *
 * @param kind what it is: station, quantity, run, instrument
 * @param text what a person calls it
 * @param more what stands beside it, searched as well
 * @param go goes there
 */
public record Hit(String kind, String text, String more, Runnable go) {}
