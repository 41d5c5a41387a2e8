package org.zestyporter.core.application.jdbc;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * Which tables of one database are being written into by this process. A run that writes into a
 * table has it alone; runs that only look records up in it share it. Who has to wait is next in the
 * order of asking.
 */
final class Claims {
  private static final Map<String, Claims> BY_DATABASE = new ConcurrentHashMap<>();

  /**
   * The tables that an owner has, or waits for.
   *
   * @param exclusive tables that it writes into
   * @param shared tables that it looks records up in
   */
  private record Claim(Set<String> exclusive, Set<String> shared) {
    boolean collides(Claim other) {
      return !Collections.disjoint(exclusive, other.exclusive)
          || !Collections.disjoint(exclusive, other.shared)
          || !Collections.disjoint(shared, other.exclusive);
    }
  }

  private final Map<Object, Claim> held = new LinkedHashMap<>();
  private final Map<Object, Claim> waiting = new LinkedHashMap<>();

  private Claims() {}

  /** The same for every way to reach the same database. */
  static Claims of(Address address) {
    String identity = address.file() == null ? address.url() : address.file().toString();
    return BY_DATABASE.computeIfAbsent(identity.replaceFirst("[?;].*", ""), i -> new Claims());
  }

  /**
   * Claims all of the tables or, if one is taken, none; then the owner waits in its turn.
   *
   * @return the owner that it has to wait for; null if it has the tables
   */
  synchronized @Nullable Object claim(Object owner, Set<String> exclusive, Set<String> shared) {
    Claim wanted = new Claim(Set.copyOf(exclusive), Set.copyOf(shared));
    waiting.putIfAbsent(owner, wanted);
    Object before = holder(held, owner, wanted);
    if (before == null) {
      before = holder(waiting, owner, wanted);
    }
    if (before == null) {
      waiting.remove(owner);
      held.put(owner, wanted);
    }
    return before;
  }

  /** The first other one whose claim collides; among those that wait, only those before it. */
  private static @Nullable Object holder(Map<Object, Claim> claims, Object owner, Claim wanted) {
    for (Map.Entry<Object, Claim> one : claims.entrySet()) {
      if (one.getKey() == owner) {
        return null;
      }
      if (one.getValue().collides(wanted)) {
        return one.getKey();
      }
    }
    return null;
  }

  /** Gives back what an owner has, and its turn. */
  synchronized void release(Object owner) {
    held.remove(owner);
    waiting.remove(owner);
  }

  /** Gives back what an owner has, but it goes on waiting for it before all others. */
  synchronized void release(Object owner, Set<String> exclusive, Set<String> shared) {
    held.remove(owner);
    Map<Object, Claim> after = new LinkedHashMap<>(waiting);
    waiting.clear();
    waiting.put(owner, new Claim(Set.copyOf(exclusive), Set.copyOf(shared)));
    waiting.putAll(after);
  }
}
