package org.zestyporter.core.value;

/**
 * Something the person must be told: what happened, where, and what can be done about it.
 *
 * <p>The message is shown as it stands and therefore never holds a class name or a stack trace.
 */
public class PorterException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final ErrorCode code;
  private final String what;
  private final String remedy;

  /**
   * @param what what happened and where, in whole sentences
   * @param remedy what can be done about it; empty if {@code what} says so
   */
  protected PorterException(ErrorCode code, String what, String remedy, Throwable cause) {
    super(remedy.isEmpty() ? what : what + " " + remedy, cause);
    this.code = code;
    this.what = what;
    this.remedy = remedy;
  }

  public ErrorCode code() {
    return code;
  }

  /** The same, with another sentence about what happened. */
  public PorterException and(String sentence) {
    return new PorterException(code, what + " " + sentence, remedy, this);
  }
}
