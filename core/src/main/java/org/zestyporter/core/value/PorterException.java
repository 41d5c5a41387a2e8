package org.zestyporter.core.value;

/**
 * Something the person must be told: what happened, where, and what can be done about it.
 *
 * <p>The message is shown as it stands and therefore never holds a class name or a stack trace.
 */
public class PorterException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** Who can mend it; decides the exit code and the HTTP status. */
  public enum Kind {
    /** The file, the plan or the request can't be used as it is. */
    INPUT,
    /** Something that was asked for does not exist. */
    MISSING,
    /** Somebody else changed it first. */
    CONFLICT,
    /** The application's database refused or was lost. */
    DATABASE,
    /** There is no room to keep it. */
    STORAGE
  }

  private final transient Kind kind;
  private final String code;

  /**
   * @param code a stable word for programs, such as {@code empty-file}
   */
  public PorterException(Kind kind, String code, String message) {
    this(kind, code, message, null);
  }

  public PorterException(Kind kind, String code, String message, Throwable cause) {
    super(message, cause);
    this.kind = kind;
    this.code = code;
  }

  public static PorterException input(String code, String message) {
    return new PorterException(Kind.INPUT, code, message);
  }

  public static PorterException missing(String code, String message) {
    return new PorterException(Kind.MISSING, code, message);
  }

  public Kind kind() {
    return kind == null ? Kind.INPUT : kind;
  }

  public String code() {
    return code;
  }
}
