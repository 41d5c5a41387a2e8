package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.reading.Reading;

/**
 * Lets a destination follow a new draft once its file is read otherwise: fields that nobody has
 * changed since the last draft are filled as the new one proposes, all others stay as they are.
 */
public final class Redraft {
  private Redraft() {}

  /**
   * What came of it.
   *
   * @param fields fields that are filled otherwise now
   */
  public record Followed(Destination destination, List<String> fields) {}

  /** True if two readings may give other columns or other records. */
  public static boolean isDue(Reading before, Reading after) {
    return !bare(before).equals(bare(after));
  }

  private static Reading bare(Reading reading) {
    return reading.with(b -> b.confirmed(null).columns(null).renamed(null));
  }

  /**
   * @param current the destination as it stands
   * @param last what the last draft proposed
   * @param anew what a draft proposes now
   */
  public static Followed follow(Destination current, Destination last, Destination anew) {
    List<Fill> fills = new ArrayList<>(current.fills());
    List<String> followed = new ArrayList<>();
    Set<String> fields = new LinkedHashSet<>();
    last.fills().forEach(f -> fields.add(f.field()));
    anew.fills().forEach(f -> fields.add(f.field()));
    for (String field : fields) {
      Fill before = fill(last, field);
      Fill now = fill(anew, field);
      boolean untouched = Objects.equals(fill(current, field), before);
      if (untouched && !Objects.equals(before, now)) {
        fills.removeIf(f -> f.field().equals(field));
        if (now != null) {
          fills.add(now);
        }
        followed.add(field);
      }
    }
    boolean sameKeys = current.keys().equals(last.keys());
    return new Followed(
        current.withFills(fills).withKeys(sameKeys ? anew.keys() : current.keys()), followed);
  }

  private static @Nullable Fill fill(Destination destination, String field) {
    return destination.fills().stream()
        .filter(f -> f.field().equals(field))
        .findFirst()
        .orElse(null);
  }
}
