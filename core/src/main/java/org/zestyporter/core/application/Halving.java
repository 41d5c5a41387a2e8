package org.zestyporter.core.application;

import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.WriteSession.Place;
import org.zestyporter.core.application.WriteSession.Refusal;
import org.zestyporter.core.application.WriteSession.RefusedException;

/**
 * Writes what an application takes, and finds what it refuses: by halving, so that a few among many
 * cost little.
 *
 * <pre>{@code
 * Halving.write(session, rows, some -> session.write(table, changes(some), false), this::reject);
 * }</pre>
 */
public final class Halving {
  private Halving() {}

  /**
   * Does something with items, together where that is taken.
   *
   * @param deed writes some of them into the session, and throws if any is refused
   * @param refused takes each item that is refused alone
   * @throws org.zestyporter.core.value.PorterException if the application is lost
   */
  public static <T> void write(
      WriteSession session, List<T> items, Consumer<List<T>> deed, BiConsumer<T, Refusal> refused) {
    if (!items.isEmpty()) {
      Refusal refusal = together(session, () -> deed.accept(items));
      if (refusal != null) {
        apart(session, items, refusal, deed, refused);
      }
    }
  }

  /**
   * Does something that is taken as a whole or not at all.
   *
   * @return why it was refused; null if it was taken
   */
  public static @Nullable Refusal together(WriteSession session, Runnable deed) {
    Place before = session.place();
    try {
      deed.run();
      before.forget();
      return null;
    } catch (RefusedException e) {
      before.goBack();
      return e.refusal();
    }
  }

  /**
   * Does something with items that were refused together, as {@link #write} does.
   *
   * @param refusal why they were
   */
  public static <T> void apart(
      WriteSession session,
      List<T> items,
      Refusal refusal,
      Consumer<List<T>> deed,
      BiConsumer<T, Refusal> refused) {
    if (items.size() == 1) {
      refused.accept(items.get(0), refusal);
      return;
    }
    int half = items.size() / 2;
    write(session, items.subList(0, half), deed, refused);
    write(session, items.subList(half, items.size()), deed, refused);
  }
}
