package org.zestyporter.server.store;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HexFormat;
import javax.sql.DataSource;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.Settings;

/** Our own records: H2 in the data folder, with a password that nobody has to know. */
@Configuration(proxyBeanMethods = false)
class StoreConfig {
  private static final String USER = "porter";
  private static final String WRONG_PASSWORD = "28000";
  private static final int CONNECTIONS = 6;

  @Bean
  DataSource dataSource(Settings settings) throws IOException, SQLException {
    OwnerOnly.folder(settings.home());
    OwnerOnly.folder(settings.storeFile().getParent());
    byte[] key = KeyFile.read(settings.home().resolve("store.key"), "the server's own records");
    String password = HexFormat.of().formatHex(key);
    String url = DurableDataSource.url(settings.storeFile());
    open(url, password);
    if (Files.exists(settings.storeFile())) {
      OwnerOnly.file(settings.storeFile());
    }
    HikariConfig pool = new HikariConfig();
    pool.setJdbcUrl(url);
    pool.setUsername(USER);
    pool.setPassword(password);
    pool.setMaximumPoolSize(CONNECTIONS);
    return new DurableDataSource(new HikariDataSource(pool));
  }

  /** Makes sure that the store has this password; one of an earlier version has none. */
  private static void open(String url, String password) throws SQLException {
    String stays = url + ";DB_CLOSE_DELAY=10";
    try {
      DriverManager.getConnection(stays, USER, password).close();
    } catch (SQLException e) {
      if (!WRONG_PASSWORD.equals(e.getSQLState())) {
        throw e;
      }
      try (Connection old = DriverManager.getConnection(stays, USER, "");
          Statement change = old.createStatement()) {
        change.execute("ALTER USER " + USER + " SET PASSWORD '" + password + "'");
      } catch (SQLException again) {
        throw ErrorCode.STORE_LOCKED.error(
            "The server's own records in the data folder do not open with the key"
                + " store.key. Put the key back from a copy of the data folder.",
            again);
      }
    }
  }
}
