package org.zestyporter.core.application.jdbc;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * Which tables of one database are being written into by this process. A run that writes into a
 * table has it alone; runs that only look records up in it share it.
 */
final class Claims {
  private static final Map<String, Claims> BY_DATABASE = new ConcurrentHashMap<>();

  private static final class Holders {
    private @Nullable Object writer;
    private final Set<Object> readers = new HashSet<>();

    boolean free(Object owner, boolean exclusive) {
      boolean others = readers.stream().anyMatch(r -> r != owner);
      return (writer == null || writer == owner) && !(exclusive && others);
    }
  }

  private final Map<String, Holders> tables = new HashMap<>();

  private Claims() {}

  /** The same for every way to reach the same database. */
  static Claims of(Address address) {
    String identity = address.file() == null ? address.url() : address.file().toString();
    return BY_DATABASE.computeIfAbsent(identity.replaceFirst("[?;].*", ""), i -> new Claims());
  }

  /** Claims all of the tables or, if one is taken, none. */
  synchronized boolean claim(Object owner, Set<String> exclusive, Set<String> shared) {
    for (String table : exclusive) {
      if (!tables.computeIfAbsent(table, t -> new Holders()).free(owner, true)) {
        return false;
      }
    }
    for (String table : shared) {
      if (!tables.computeIfAbsent(table, t -> new Holders()).free(owner, false)) {
        return false;
      }
    }
    exclusive.forEach(t -> tables.get(t).writer = owner);
    shared.forEach(t -> tables.get(t).readers.add(owner));
    return true;
  }

  synchronized void release(Object owner) {
    for (Holders holders : tables.values()) {
      holders.readers.remove(owner);
      holders.writer = holders.writer == owner ? null : holders.writer;
    }
    tables.values().removeIf(h -> h.writer == null && h.readers.isEmpty());
  }
}
