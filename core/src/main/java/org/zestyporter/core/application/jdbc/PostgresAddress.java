package org.zestyporter.core.application.jdbc;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Addresses of PostgreSQL: one host, a database, and settings that touch nothing but the session.
 */
final class PostgresAddress implements Address.Form {
  private static final Pattern SHAPE =
      Pattern.compile(
          "(?://(?<host>\\[[0-9A-Fa-f:.]+]|[A-Za-z0-9._-]+)(?::(?<port>\\d{1,5}))?)?"
              + "/?(?<database>[^/?#&;\\\\]*)(?:\\?(?<settings>.*))?");

  /** Settings by name, with what their values look like. */
  private static final Map<String, Pattern> ALLOWED = allowed();

  private static Map<String, Pattern> allowed() {
    Pattern number = Pattern.compile("\\d{1,6}");
    Pattern truth = Pattern.compile("true|false");
    Pattern name = Pattern.compile("[^\\p{Cntrl}]{1,200}");
    Map<String, Pattern> allowed = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
    allowed.put("user", name);
    allowed.put("currentSchema", name);
    allowed.put("ApplicationName", name);
    allowed.put("ssl", truth);
    allowed.put("sslmode", Pattern.compile("disable|allow|prefer|require|verify-ca|verify-full"));
    allowed.put("connectTimeout", number);
    allowed.put("loginTimeout", number);
    allowed.put("socketTimeout", number);
    allowed.put("tcpKeepAlive", truth);
    return allowed;
  }

  @Override
  public String prefix() {
    return "jdbc:postgresql:";
  }

  @Override
  public String example() {
    return "jdbc:postgresql://localhost:5432/marina";
  }

  @Override
  public Address parse(String rest, Address.Rules rules) {
    Matcher m = SHAPE.matcher(rest);
    if (!m.matches() || (m.group("host") == null && m.group("database").isEmpty())) {
      throw Address.refused(
          "A PostgreSQL address names one host, its port and a database, such as "
              + example()
              + ".");
    }
    String host = m.group("host") == null ? "localhost" : m.group("host");
    StringBuilder url = new StringBuilder(prefix()).append("//").append(host);
    if (m.group("port") != null) {
      url.append(':').append(Integer.parseInt(m.group("port")));
    }
    url.append('/').append(encode(decode(m.group("database"))));
    char sign = '?';
    for (Map.Entry<String, String> setting : settings(m.group("settings")).entrySet()) {
      url.append(sign).append(setting.getKey()).append('=').append(encode(setting.getValue()));
      sign = '&';
    }
    return new Address("PostgreSQL", host, null, url.toString());
  }

  private static Map<String, String> settings(String text) {
    Map<String, String> settings = new TreeMap<>();
    for (String part : text == null || text.isEmpty() ? new String[0] : text.split("&", -1)) {
      int at = part.indexOf('=');
      String given = at < 0 ? part : part.substring(0, at);
      String value = at < 0 ? "" : decode(part.substring(at + 1));
      String known =
          ALLOWED.keySet().stream().filter(given::equalsIgnoreCase).findFirst().orElse(null);
      if (known == null || !ALLOWED.get(known).matcher(value).matches()) {
        throw Address.refused(
            (known == null
                    ? "The setting “" + given + "” is not allowed in an address"
                    : "The setting " + known + " can't be “" + value + "”")
                + ". Allowed are "
                + String.join(", ", ALLOWED.keySet())
                + "; user and password are entered beside it.");
      }
      if (settings.put(known, value) != null) {
        throw Address.refused("The setting " + known + " stands twice in the address.");
      }
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
