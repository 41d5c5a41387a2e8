package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/**
 * The vocabulary of errors: every way in which a request, a plan, a file, a database or we
 * ourselves can fail as a whole. What is wrong with single values and rows is told by {@link
 * ProblemCode}.
 *
 * <p>A code knows whose matter it is and, where that is always the same, what can be done about it.
 * What happened is said where it happens: {@code throw ErrorCode.EMPTY_FILE.error("The file holds
 * no cells.")}.
 */
public enum ErrorCode {
  // the plan and its parts
  NOT_A_PLAN(Kind.USER),
  NOT_A_READING(Kind.USER),
  NO_PLAN(Kind.USER),
  NO_DESTINATION(Kind.USER, "Choose the table that its rows go to."),
  PLAN_INCOMPLETE(Kind.USER),
  SAME_NAME(Kind.USER, "Give each of them a name of its own."),
  DISTINCT_KEY(Kind.USER),
  SPLIT(Kind.USER),
  PARENT(Kind.USER),
  CONDITION(Kind.USER),
  EMPTY_KEY(Kind.USER),
  KEY_NOT_FILLED(Kind.USER),
  NO_LATEST(Kind.USER),
  NEAR(Kind.USER),
  TOO_MANY_RECORDS(Kind.USER),
  NO_SUCH_CLASS(Kind.USER),
  NO_RETURNS(Kind.USER),
  NEVER(Kind.USER),
  FAR_OFF(Kind.USER),
  NO_PRIMARY_KEY(Kind.USER, "Take away the match key to add every row."),
  NO_SUCH_FIELD(Kind.USER),
  UNFILLABLE_FIELD(Kind.USER, "Leave it to the database."),
  REQUIRED_FIELD(Kind.USER),
  GUESS(Kind.USER),
  AMBIGUOUS_DATES(Kind.USER),
  AMBIGUOUS_DECIMALS(Kind.USER),
  FILLED_TWICE(Kind.USER),
  LEFT_TO_DATABASE(Kind.USER),
  NO_ORIGIN(Kind.USER),
  NO_GENERATOR(Kind.USER),
  NO_COLUMNS(Kind.USER),
  NO_LINK(Kind.USER),
  NO_CREATE(Kind.USER),
  SERIES(Kind.USER),
  STEP_SETTINGS(Kind.USER),
  FORMULA(Kind.USER),
  PATTERN(Kind.USER),
  CHECK(Kind.USER),
  NO_SUCH_COLUMN(Kind.USER),

  // the reading
  NO_SUCH_SHEET(Kind.USER),
  NO_SUCH_ENTRY(Kind.USER),
  ENCODING(Kind.USER),
  DELIMITER(Kind.USER),
  QUOTE(Kind.USER),
  BORDERS(Kind.USER),
  RECORDS(Kind.USER),
  FOLD(Kind.USER),
  PICK(Kind.USER),
  DATE_ORDER(Kind.USER),
  DECIMAL_SIGN(Kind.USER),
  CENTURY(Kind.USER),

  // signing in
  SIGNED_OUT(Kind.USER),
  WRONG_PASSWORD(Kind.USER),
  TOO_MANY_ATTEMPTS(Kind.USER),
  STALE_PAGE(Kind.USER),
  ODD_ADDRESS(Kind.USER),

  // what is asked for, typed or chosen
  CERTIFICATE(Kind.USER),
  PASSWORD_NEEDED(Kind.USER),
  NO_ADDRESS(Kind.USER),
  ADDRESS(Kind.USER),
  UNKNOWN_DATABASE(Kind.USER),
  A_VIEW(Kind.USER),
  NO_TRANSACTIONS(Kind.USER),
  STOPPED(Kind.USER),
  NAME(Kind.USER),
  WORD(Kind.USER),
  CSV(Kind.USER),
  NUMBER(Kind.USER),
  TEXT(Kind.USER),
  OUTCOME(Kind.USER),
  INVALID(Kind.USER),
  UNREADABLE(Kind.USER),
  REQUEST(Kind.USER),
  NOT_KEPT(Kind.USER),

  // the installation
  NO_START(Kind.USER),
  STORE_LOCKED(Kind.USER),
  KEY_DAMAGED(Kind.USER, "Put it back from a copy of the data folder."),
  KEY_UNREADABLE(Kind.USER),
  OTHER_KEY(Kind.USER, "Put the old key back, or remove the connection and add it again."),

  // what is not, or no longer, there
  NO_SUCH_TABLE(Kind.MISSING, "It may have been renamed or removed."),
  NO_SUCH_RECORD(Kind.MISSING),
  NO_SUCH_CONNECTION(Kind.MISSING),
  NO_SUCH_PLAN(Kind.MISSING),
  NO_SUCH_FILE(Kind.MISSING, "Bring it again."),
  NO_SUCH_ROW(Kind.MISSING),
  NO_SUCH_RUN(Kind.MISSING),
  NO_SUCH_LINE(Kind.MISSING),
  NO_LEDGER(Kind.MISSING),
  NO_SUCH_PHRASEBOOK(Kind.MISSING),

  // what somebody else has or does
  NAME_TAKEN(Kind.CONFLICT, "Choose another name."),
  CHANGED_MEANWHILE(Kind.CONFLICT, "Load the plan again, then repeat the change."),
  ALREADY_GOING(Kind.CONFLICT, "Wait until that is done."),
  IN_USE(Kind.CONFLICT),
  UNDONE(Kind.CONFLICT),
  CANT_UNDO(Kind.CONFLICT),
  CANT_GO_ON(Kind.CONFLICT),
  READ_ONLY(Kind.CONFLICT),

  // the file
  EMPTY_FILE(Kind.DATA, "Ask for it to be sent again."),
  NO_ROWS(Kind.DATA, "Ask for it to be sent again, or see whether its titles are found."),
  NOT_A_TABLE(
      Kind.DATA, "Bring text, a workbook (.xlsx, .xls, .ods), JSON, or an archive of such."),
  PACKED_TWICE(Kind.DATA, "Unpack it once and bring that."),
  MARKUP(Kind.DATA, "Open it in a spreadsheet, save it as .xlsx, .ods or .csv and bring that."),
  NUL_BYTE(Kind.DATA, "Ask for it to be sent again, or take these bytes out."),
  BINARY_WORKBOOK(Kind.DATA, "Save it as .xlsx or .ods and bring the new file."),
  OLD_WORKBOOK(Kind.DATA, "Save it as .xlsx or .ods and bring the new file."),
  PASSWORD_PROTECTED(
      Kind.DATA, "Open it with the password, save it without one and bring the new file."),
  UNREADABLE_WORKBOOK(Kind.DATA, "Open it in a spreadsheet, save it again and bring the new file."),
  UNCLOSED_QUOTE(
      Kind.DATA, "Take the stray quote out of the file, or say that the file has no quotes."),
  UNREADABLE_ARCHIVE(Kind.DATA, "Ask for it to be sent again."),
  UNREADABLE_JSON(Kind.DATA, "Ask for it to be sent again."),
  TOO_LARGE(Kind.DATA),
  TOO_MUCH(Kind.DATA, "Save it as .csv, or in parts, and bring that."),
  TOO_SLOW(Kind.DATA, "Save it again in a spreadsheet, or as .csv, and bring that."),
  TOO_WIDE(
      Kind.DATA, "See whether the delimiter is the right one and the lines end where they should."),
  TOO_LONG_CELL(Kind.DATA, "See whether the file is what it should be."),

  // the application's database
  DATABASE_DRIVER(Kind.DATABASE),
  DATABASE_HOST(Kind.DATABASE, "Check its name in the address."),
  DATABASE_PORT(Kind.DATABASE, "Check that it is running, then try again."),
  DATABASE_MISSING(Kind.DATABASE, "Check its name in the address."),
  DATABASE_SIGN_IN(Kind.DATABASE, "Check both, then try again."),
  DATABASE_TLS(
      Kind.DATABASE, "Have the server's certificate set right, or change how TLS is asked for."),
  DATABASE_FULL_HOUSE(Kind.DATABASE, "Try again a little later."),
  DATABASE_STOPPING(Kind.DATABASE, "Try again when it is back."),
  DATABASE_LOST(Kind.DATABASE, "Try again when it is back."),
  DATABASE_IN_USE(Kind.DATABASE, "End that program, then try again."),
  DATABASE_UNREACHABLE(Kind.DATABASE, "Check that it is running, then try again."),
  DATABASE_LOCKED(Kind.DATABASE, "Try again when they are done."),
  DATABASE_DEADLOCK(Kind.DATABASE, "Try again."),
  DATABASE_SLOW(Kind.DATABASE, "Try again, or allow it more time."),
  DATABASE_DISK(Kind.DATABASE, "Have room made on it, then try again."),
  DATABASE_READ_ONLY(Kind.DATABASE, "Take a connection that may write."),
  DATABASE_RIGHTS(Kind.DATABASE, "Have the right given, or take another connection."),
  DATABASE_CANCELLED(Kind.DATABASE),
  DATABASE_ODD_NAME(Kind.DATABASE, "Have it renamed, or take another connection."),
  DATABASE_REFUSED(Kind.DATABASE),
  TABLE_GONE(Kind.DATABASE, "Choose the table again."),
  ROW_REFUSED(Kind.DATABASE),
  DIFFERENT(Kind.CONFLICT, "Rehearse again, and look at what comes out now."),
  TOO_MANY_REJECTED(Kind.DATA),
  UNBALANCED(Kind.DATABASE),
  ALTERED(Kind.DATABASE),
  UNSURE(Kind.DATABASE),

  // ours
  BUSY(Kind.CONFLICT, "Try again when it is done."),
  NO_ROOM(Kind.STORAGE),
  INTERNAL(Kind.OURS, "Try again.");

  /** Whose matter an error is; decides the exit code and the HTTP status. */
  public enum Kind {
    /** The plan or the request can't be used as it is. */
    USER,
    /** Something that was asked for does not exist. */
    MISSING,
    /** Somebody else has it, or changed it first. */
    CONFLICT,
    /** The file can't be used as it is. */
    DATA,
    /** The application's database refused or was lost. */
    DATABASE,
    /** There is no room to keep it. */
    STORAGE,
    /** A mistake in Zesty Porter itself. */
    OURS
  }

  private final Kind kind;
  private final String remedy;

  ErrorCode(Kind kind) {
    this(kind, "");
  }

  ErrorCode(Kind kind, String remedy) {
    this.kind = kind;
    this.remedy = remedy;
  }

  /** The stable word for programs, such as {@code empty-file}. */
  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  public Kind kind() {
    return kind;
  }

  /** What can usually be done about it; empty if that depends, and is said with what happened. */
  public String remedy() {
    return remedy;
  }

  /**
   * @param what what happened and where, in whole sentences
   */
  public PorterException error(String what) {
    return new PorterException(this, what, remedy, null);
  }

  public PorterException error(String what, Throwable cause) {
    return new PorterException(this, what, remedy, cause);
  }

  /**
   * @param otherwise what can be done about it here, in place of what is usual
   */
  public PorterException error(String what, String otherwise) {
    return new PorterException(this, what, otherwise, null);
  }

  public PorterException error(String what, String otherwise, Throwable cause) {
    return new PorterException(this, what, otherwise, cause);
  }
}
