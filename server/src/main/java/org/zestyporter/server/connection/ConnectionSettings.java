package org.zestyporter.server.connection;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.jdbc.Offer;
import org.zestyporter.core.application.jdbc.Patience;

/**
 * What may be done through a connection, and how.
 *
 * @param readOnly true if nothing may be written
 * @param tables the tables that are offered, with {@code *} for any letters; empty for all
 * @param statementSeconds for one statement to end; null for the server's own limit
 * @param lockSeconds for a lock of somebody else to go; null for the server's own limit
 * @param atATime connections to the database at a time; null for the usual number
 * @param certificate of the authority that vouches for the database, in PEM; null for those that
 *     the system knows
 */
public record ConnectionSettings(
    boolean readOnly,
    @Nullable @Size(max = 200) List<@NotBlank @Size(max = 200) String> tables,
    @Nullable @Min(1) @Max(86_400) Integer statementSeconds,
    @Nullable @Min(1) @Max(3_600) Integer lockSeconds,
    @Nullable @Min(2) @Max(50) Integer atATime,
    @Nullable @Size(max = 50_000) String certificate) {
  private static final int USUALLY_AT_A_TIME = 6;

  /** Nothing out of the ordinary. */
  public static final ConnectionSettings USUAL =
      new ConnectionSettings(false, null, null, null, null, null);

  public ConnectionSettings {
    tables = tables == null ? List.of() : List.copyOf(tables);
    certificate = certificate == null || certificate.isBlank() ? null : certificate.strip();
  }

  Offer offer() {
    return new Offer(readOnly, tables);
  }

  Patience patience(Patience own) {
    return new Patience(
        lockSeconds == null ? own.lock() : Duration.ofSeconds(lockSeconds),
        statementSeconds == null ? own.statement() : Duration.ofSeconds(statementSeconds));
  }

  int pooled() {
    return atATime == null ? USUALLY_AT_A_TIME : atATime;
  }
}
