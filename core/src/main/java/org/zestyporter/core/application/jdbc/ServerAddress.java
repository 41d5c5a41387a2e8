package org.zestyporter.core.application.jdbc;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Addresses of databases behind a server: one host, a database, and settings that touch nothing but
 * the session.
 */
final class ServerAddress implements Address.Form {
  private static final Pattern SHAPE =
      Pattern.compile(
          "(?://(?<host>\\[[0-9A-Fa-f:.]+]|[A-Za-z0-9._-]+)(?::(?<port>\\d{1,5}))?)?"
              + "/?(?<database>[^/?#&;\\\\]*)(?:\\?(?<settings>.*))?");
  private static final Pattern NUMBER = Pattern.compile("\\d{1,6}");
  private static final Pattern TRUTH = Pattern.compile("true|false");
  private static final Pattern NAME = Pattern.compile("[^\\p{Cntrl}]{1,200}");

  /** Schemas as PostgreSQL reads them, in the order in which tables are looked for. */
  private static final Pattern SCHEMAS =
      Pattern.compile("\\s*(?<name>\"(?:[^\"]|\"\")+\"|[^\",]+?)\\s*(?:,|$)");

  /** A name that PostgreSQL takes as it stands, without changing its letters. */
  private static final Pattern BARE = Pattern.compile("[a-z_][a-z0-9_$]*");

  private static final String SCHEMA = "currentSchema";

  private static final Pattern PARTING = Pattern.compile("[?&/\\\\#\\p{Cntrl}]");

  private final String product;
  private final String prefix;

  /** How the driver wants names to be written. */
  private final UnaryOperator<String> names;

  /** How the driver calls it. */
  private final String given;

  private final int port;

  /** What the driver is told besides, whatever the address says. */
  private final String always;

  /** Settings by name, with what their values look like. */
  private final Map<String, Pattern> allowed = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);

  private ServerAddress(
      String product,
      String prefix,
      String given,
      int port,
      UnaryOperator<String> names,
      String always) {
    this.product = product;
    this.prefix = prefix;
    this.given = given;
    this.port = port;
    this.always = always;
    this.names = names;
    allowed.put("user", NAME);
    allowed.put("connectTimeout", NUMBER);
    allowed.put("socketTimeout", NUMBER);
    allowed.put("tcpKeepAlive", TRUTH);
  }

  static ServerAddress postgres() {
    String prefix = "jdbc:postgresql:";
    ServerAddress form =
        new ServerAddress("PostgreSQL", prefix, prefix, 5432, ServerAddress::encode, "");
    form.allowed.put(SCHEMA, NAME);
    form.allowed.put("ApplicationName", NAME);
    form.allowed.put("ssl", TRUTH);
    form.allowed.put(
        "sslmode", Pattern.compile("disable|allow|prefer|require|verify-ca|verify-full"));
    form.allowed.put("loginTimeout", NUMBER);
    return form;
  }

  /**
   * MariaDB, and what its driver reaches as well.
   *
   * @param prefix how people write it
   */
  static ServerAddress maria(String prefix) {
    // values come as they are held, and nobody but the address says where they come from; the
    // driver gives no file away but what a statement asks to be loaded (MariaLoad, MariaDialect)
    String always = "useServerPrepStmts=true&allowLocalInfile=true&permitRedirect=false";
    ServerAddress form =
        new ServerAddress("MariaDB", prefix, "jdbc:mariadb:", 3306, ServerAddress::plain, always);
    form.allowed.put("sslMode", Pattern.compile("disable|trust|verify-ca|verify-full"));
    form.allowed.put("allowPublicKeyRetrieval", TRUTH);
    return form;
  }

  @Override
  public String prefix() {
    return prefix;
  }

  @Override
  public String example() {
    return prefix + "//localhost:" + port + "/marina";
  }

  @Override
  public Address parse(String text, Address.Rules rules) {
    Matcher m = SHAPE.matcher(text);
    boolean named = m.matches() && !m.group("database").isEmpty();
    if (!named && (!m.matches() || m.group("host") == null || !always.isEmpty())) {
      throw Address.refused(
          "A "
              + product
              + " address names one host, its port and a database, such as "
              + example()
              + ".");
    }
    String host = m.group("host") == null ? "localhost" : m.group("host");
    String number = m.group("port") == null ? "" : ":" + Integer.parseInt(m.group("port"));
    String database = decode(m.group("database"));
    Map<String, String> settings = settings(m.group("settings"));
    String server = "//" + host + number + "/";
    String rest = server + written(database, settings, ServerAddress::encode);
    String schema = settings.get(SCHEMA);
    settings.computeIfPresent(SCHEMA, (name, value) -> quoted(value));
    String url = given + server + written(database, settings, names);
    url += always.isEmpty() ? "" : (settings.isEmpty() ? "?" : "&") + always;
    return new Address(product, host, null, prefix + rest, url, schema);
  }

  /** Names of schemas so that they are found as they are written, whatever their letters. */
  private static String quoted(String schemas) {
    List<String> quoted = new ArrayList<>();
    Matcher m = SCHEMAS.matcher(schemas);
    int end = 0;
    while (end < schemas.length() && m.find(end) && m.start() == end) {
      String name = m.group("name");
      boolean isWritten = name.startsWith("\"") || BARE.matcher(name).matches();
      quoted.add(isWritten ? name : '"' + name + '"');
      end = m.end();
    }
    if (end < schemas.length() || quoted.isEmpty()) {
      throw Address.refused(
          "The setting currentSchema can't be “"
              + schemas
              + "”: it is the name of a schema, or several with commas between.");
    }
    return String.join(",", quoted);
  }

  private static String written(
      String database, Map<String, String> settings, UnaryOperator<String> as) {
    StringBuilder written = new StringBuilder(as.apply(database));
    char sign = '?';
    for (Map.Entry<String, String> setting : settings.entrySet()) {
      written
          .append(sign)
          .append(setting.getKey())
          .append('=')
          .append(as.apply(setting.getValue()));
      sign = '&';
    }
    return written.toString();
  }

  /** A name for a driver that takes it as it stands: it must not end there, for what follows. */
  private static String plain(String name) {
    if (PARTING.matcher(name).find()) {
      throw Address.refused("“" + name + "” can't stand in an address: it has one of ? & / \\ #.");
    }
    return name;
  }

  private Map<String, String> settings(String text) {
    Map<String, String> settings = new TreeMap<>();
    for (String part : text == null || text.isEmpty() ? new String[0] : text.split("&", -1)) {
      int at = part.indexOf('=');
      String name = at < 0 ? part : part.substring(0, at);
      String value = at < 0 ? "" : decode(part.substring(at + 1));
      Address.put(settings, allowed, name, value, "; user and password are entered beside it.");
    }
    return settings;
  }

  private static String decode(String text) {
    try {
      return URLDecoder.decode(text, StandardCharsets.UTF_8);
    } catch (IllegalArgumentException e) {
      throw Address.refused("“" + text + "” has a % that stands for no character.");
    }
  }

  private static String encode(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
  }
}
