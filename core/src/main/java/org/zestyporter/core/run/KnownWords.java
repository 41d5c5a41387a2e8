package org.zestyporter.core.run;

import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.value.Values;

/** The application's words that a cell may hold for a field. */
public final class KnownWords {
  private KnownWords() {}

  /**
   * The choices of a field as they are declared, or the values by which its link finds records in
   * their order; none if it takes any value.
   *
   * @param most how many at the most, those that are read first
   * @throws org.zestyporter.core.value.PorterException if the application can't be read
   */
  public static Set<String> of(Application application, TableInfo table, Fill fill, int most) {
    FieldInfo field = table.field(fill.field());
    if (field.choices() != null) {
      return new LinkedHashSet<>(field.choices().stream().limit(most).toList());
    }
    Set<String> words = new TreeSet<>();
    if (field.link() != null && fill.origin().link() != null) {
      TableInfo linked = application.table(field.link().table());
      List<FieldInfo> by = linked.fields(fill.origin().link().together());
      application.look(
          Ask.all(linked, by),
          Records.each(
              found -> {
                String together = Values.together(Arrays.stream(found));
                if (!together.isEmpty() && words.size() < most) {
                  words.add(together);
                }
              }));
    }
    return words;
  }
}
