package org.zestyporter.core.draft;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.ValueType;

/** Judges how well a column fits a link: by which of the other table's records it names. */
final class LinkPairing {
  private static final double MOSTLY = 0.5;
  private static final double NEARLY_ALL = 0.9;

  /** A title that says what a field is called, and hardly anything else. */
  private static final int SAID = 70;

  private final SourceTable source;
  private final LinkValues linkValues;
  private final FewWords words;

  LinkPairing(SourceTable source, LinkValues linkValues, FewWords words) {
    this.source = source;
    this.linkValues = linkValues;
    this.words = words;
  }

  /** True if a field can hold nothing but keys of another table. */
  static boolean isOnly(FieldInfo field) {
    return field.link() != null && field.link().declared();
  }

  static String found(FieldInfo field, Overlap overlap) {
    return overlap.told() + " are found as " + field.link().table() + "." + overlap.fields();
  }

  /** How many rows of a column each field of a linked table knows, the most first. */
  List<PlanDraft.Lookup> lookups(FieldInfo link, int column) {
    Overlap key = linkValues.byKey(link, column);
    return Stream.concat(linkValues.all(link, column).stream(), Stream.ofNullable(key))
        .filter(
            o -> o == key || key == null || !o.field().equals(key.field()) || !o.with().isEmpty())
        .map(o -> new PlanDraft.Lookup(o.field(), o.with(), o.found(), o.rows()))
        .sorted(Comparator.comparingLong(l -> -l.found()))
        .toList();
  }

  /** How well a column fits a link; null if hardly any of its values is found. */
  @Nullable Pair of(FieldInfo field, int column, Likeness name) {
    Overlap overlap = best(field, column, name);
    // a few known words are enough where the names agree, for the others may be spelt otherwise
    if (overlap == null || overlap.share() < (name.score() >= SAID ? 0.1 : 0.4)) {
      return isOnly(field) ? sparse(field, column, name, overlap) : null;
    }
    int score = name.score() / 2 + (int) Math.round(40 + 40 * overlap.weight());
    boolean mostly = overlap.isCall() && overlap.share() >= MOSTLY;
    Certainty sure =
        mostly && name.score() >= Pairing.ENOUGH || overlap.weight() >= NEARLY_ALL
            ? Certainty.PLAIN
            : mostly || name.score() >= Pairing.ENOUGH ? Certainty.LIKELY : Certainty.GUESS;
    return new Pair(field, column, score, overlap, found(field, overlap), sure);
  }

  /**
   * The field of the linked table that knows most of a column's rows: also its key where the names
   * agree, since small numbers are keys of any table by chance.
   */
  private @Nullable Overlap best(FieldInfo field, int column, Likeness name) {
    Overlap called = linkValues.best(field, column);
    Overlap key = name.score() < Pairing.ENOUGH ? null : linkValues.byKey(field, column);
    return called == null || key != null && key.weight() > called.weight() ? key : called;
  }

  /**
   * A link by its name alone, where the other table holds hardly any of what it will hold.
   *
   * @param some the few values that are found; null if none is
   */
  private @Nullable Pair sparse(
      FieldInfo field, int column, Likeness name, @Nullable Overlap some) {
    String few =
        some == null
            ? "none of its values is found in " + field.link().table()
            : "only " + found(field, some);
    Overlap named = linkValues.named(field, column, SAID);
    if (named != null) {
      String because = "the names of the link and of " + named.field() + " agree; " + few;
      return new Pair(field, column, SAID * 8 / 10, named, because, Certainty.LIKELY);
    }
    if (name.score() < SAID || source.profiles().get(column).type() != ValueType.TEXT) {
      return null;
    }
    Overlap label = linkValues.label(field, column, linkValues.values(column).tallies().size() / 2);
    if (label == null) {
      Overlap by = some == null ? linkValues.label(field, column, Integer.MAX_VALUE) : some;
      return by == null ? null : words.pair(field, column, name, by, few);
    }
    return new Pair(
        field,
        column,
        name.score() * 8 / 10,
        label,
        name.because()
            + "; "
            + field.link().table()
            + " holds only "
            + label.rows()
            + " records to look in yet",
        Certainty.LIKELY);
  }
}
