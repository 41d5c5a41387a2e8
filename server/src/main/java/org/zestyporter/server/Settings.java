package org.zestyporter.server;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;
import org.zestyporter.core.application.jdbc.Address;
import org.zestyporter.core.application.jdbc.Patience;

/**
 * Settings of an installation.
 *
 * @param home the data folder: our own records, uploads and the keys
 * @param uploadLimit the largest file that is taken
 * @param dataLimit the most that the data folder may hold
 * @param databaseFolders folders in which database files may lie that are connected to; none unless
 *     said
 * @param hosts names under which the server is reached; requests for others are refused
 * @param sessionLife how long a sign-in lasts at most, however busy
 * @param lockWait how long is waited for records that somebody else has locked
 * @param keepLedgers how long the ledger of a run is kept, by which it can be undone
 * @param ledgerLimit the most that the ledgers of runs may take; the oldest go
 * @param statementTime how long one statement in an application's database may take
 */
@ConfigurationProperties("porter")
public record Settings(
    Path home,
    @DefaultValue("2GB") DataSize uploadLimit,
    @DefaultValue("50GB") DataSize dataLimit,
    @DefaultValue List<Path> databaseFolders,
    @DefaultValue({"localhost", "127.0.0.1", "[::1]"}) List<String> hosts,
    @DefaultValue("24h") Duration sessionLife,
    @DefaultValue("30s") Duration lockWait,
    @DefaultValue("365d") Duration keepLedgers,
    @DefaultValue("20GB") DataSize ledgerLimit,
    @DefaultValue("30m") Duration statementTime) {

  /** The file of our own records. */
  public Path storeFile() {
    return home.resolve("store").resolve("porter.mv.db");
  }

  /** What addresses of databases may be. */
  public Address.Rules addressRules() {
    return new Address.Rules(databaseFolders, storeFile(), false);
  }

  /** How long is waited for databases of applications. */
  public Patience patience() {
    return new Patience(lockWait, statementTime);
  }
}
