package org.zestyporter.core.draft;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.ValueType;
import org.zestyporter.core.value.Words;

/** Judges how well a column fits a field: by names, by values, by what earlier plans did. */
final class Pairing {
  /** The least score at which a column feeds a field. */
  static final int ENOUGH = 50;

  /** More than any likeness of names and values. */
  private static final int REMEMBERED = 300;

  private static final double MOSTLY = 0.5;

  /** So many values must be readable for a title to be believed. */
  private static final double SOME = 0.25;

  /** A column that holds a field's choices and nothing else. */
  private static final int ALL_CHOICES = 65;

  /** Values that hardly anything else than the field could hold. */
  private static final int STRONG = 65;

  private final SourceTable source;
  private final LinkValues linkValues;
  private final FewWords words;
  private final LinkPairing links;
  private final List<Fill> memory;
  private final Sketches sketches;
  private final TypeFit types;
  private final ChoiceColumns choices;
  private final Map<TitleOf, Likeness.Title> titles = new ConcurrentHashMap<>();

  private record TitleOf(String table, String title) {}

  /**
   * @param lists columns whose cells hold several values, each of which is judged
   */
  Pairing(KnownRecords known, SourceTable source, List<Fill> memory, Map<Integer, CellList> lists) {
    this.source = source;
    this.types = new TypeFit(source);
    this.choices = new ChoiceColumns(source);
    this.linkValues = new LinkValues(known, source, lists);
    this.words = new FewWords(linkValues);
    this.links = new LinkPairing(source, linkValues, words);
    this.memory = memory;
    this.sketches = new Sketches(known, source, types.measures());
  }

  /** How well a column's values agree with those that a field holds already. */
  Sketch.Agreement agreement(TableInfo table, FieldInfo field, int column) {
    return sketches.agreement(table, field, column);
  }

  /** True if a text field holds values already, of which none is written as any of a column. */
  boolean isUnlike(TableInfo table, FieldInfo field, int column) {
    return field.type() == FieldType.TEXT && sketches.isUnlike(table, field, column);
  }

  /** True if a column holds something else than texts, and the field nothing of the kind so far. */
  private boolean isNoText(TableInfo table, FieldInfo field, int column) {
    ValueType type = source.profiles().get(column).type();
    if (type == ValueType.BOOLEAN && field.type() == FieldType.TEXT) {
      // yes and no are texts as well, where the field holds them already
      return sketches.isTelling(table, field) && agreement(table, field, column).score() < ENOUGH;
    }
    return type != ValueType.TEXT
        && type != ValueType.EMPTY
        && isUnlike(table, field, column)
        && (!type.isNumber() || sketches.isWithoutDigits(table, field));
  }

  /**
   * How well a column fits a field.
   *
   * @param title the column's title, as far as it counts here
   * @return null if it does not fit at all
   */
  @Nullable Pair of(TableInfo table, FieldInfo field, int column, String title) {
    Pair remembered = remembered(field, column);
    Pair pair = remembered == null ? pair(table, field, column, title) : remembered;
    return pair == null || pair.score() < ENOUGH ? null : pair;
  }

  /**
   * How well a column fits a field that somebody wants to fill, also where nothing would be
   * proposed.
   *
   * @return null if the field can take none of its values
   */
  @Nullable Pair offer(TableInfo table, FieldInfo field, int column) {
    Pair remembered = remembered(field, column);
    Pair pair =
        remembered == null ? pair(table, field, column, source.columns().get(column)) : remembered;
    if (pair != null) {
      boolean isSilent = pair.because().isEmpty() || pair.score() < ENOUGH;
      return isSilent && !LinkPairing.isOnly(field)
          ? new Pair(
              field, column, pair.score(), pair.link(), "its values can be taken", Certainty.GUESS)
          : pair;
    }
    Overlap some = field.link() == null ? null : linkValues.best(field, column);
    if (some != null) {
      return new Pair(field, column, 1, some, LinkPairing.found(field, some), Certainty.GUESS);
    }
    return !LinkPairing.isOnly(field) && types.fits(column, field)
        ? new Pair(field, column, 0, null, "its values can be taken", Certainty.GUESS)
        : null;
  }

  /** A column that somebody has chosen though the field can take none of its values so far. */
  Pair anyway(FieldInfo field, int column) {
    Overlap label =
        LinkPairing.isOnly(field) ? linkValues.label(field, column, Integer.MAX_VALUE) : null;
    String because =
        label == null
            ? "its values are none that the field can take"
            : "none of its values is found in " + field.link().table() + " so far";
    return new Pair(field, column, 0, label, because, Certainty.GUESS);
  }

  /** The values of a column; the single ones where its cells hold several. */
  DistinctValues values(int column) {
    return linkValues.values(column);
  }

  /** How a link is judged. */
  LinkPairing links() {
    return links;
  }

  /** True if a column holds one value only. */
  boolean isConstant(int column) {
    DistinctValues values = source.distinct(column);
    return values.tallies().size() < 2 && values.beyond() == 0;
  }

  /** What fields can take by their types. */
  TypeFit types() {
    return types;
  }

  /** The pair that an earlier plan made of a column of this name; null if none did. */
  private @Nullable Pair remembered(FieldInfo field, int column) {
    String name = source.columns().get(column);
    for (Fill fill : memory) {
      if (fill.field().equalsIgnoreCase(field.name())
          && name.equalsIgnoreCase(fill.origin().column())) {
        return new Pair(
            field,
            column,
            REMEMBERED,
            null,
            "an earlier plan fills it from this column",
            fill.withGuess(false),
            false,
            false,
            Certainty.PLAIN);
      }
    }
    return null;
  }

  private @Nullable Pair pair(TableInfo table, FieldInfo field, int column, String title) {
    ColumnProfile profile = source.profiles().get(column);
    Likeness name =
        titles
            .computeIfAbsent(
                new TitleOf(table.name(), title),
                t -> new Likeness.Title(table, title, lowest(column, title)))
            .to(field);
    if (field.link() != null) {
      Pair link = links.of(field, column, name);
      // a field that no database declares to be a link may hold something else
      if (link != null || field.link().declared()) {
        return link;
      }
    }
    CommentCodes codes = CommentCodes.of(field, linkValues.values(column));
    if (codes != null) {
      return coded(field, column, name, codes);
    }
    IsoCodes iso = IsoCodes.of(field, title, linkValues.values(column));
    if (iso != null && name.score() >= ENOUGH) {
      String because = name.because() + ", and " + iso.told();
      return new Pair(field, column, name.score() + 40, null, because, Certainty.PLAIN);
    }
    ChoiceWords meant = ChoiceWords.of(field, linkValues.values(column));
    if (meant != null && (name.score() >= ENOUGH || meant.isTelling())) {
      return saying(field, column, name, meant.told());
    }
    TruthWords truth = TruthWords.of(field, linkValues.values(column));
    if (truth != null) {
      return saying(field, column, name, truth.told(field));
    }
    int score = name.score();
    String because = name.because();
    if (field.choices() != null) {
      Overlap overlap = LinkValues.choices(field.choices(), linkValues.values(column));
      if (overlap.share() >= 0.6) {
        score += 40;
        because += ", and " + overlap.told() + " are among its choices";
        if (score < ENOUGH && choices.isOnly(table, field, column)) {
          String only = overlap.told() + " are among its choices, and no other column's";
          return Pair.byValues(field, column, ALL_CHOICES, only, Certainty.LIKELY);
        }
      } else if (profile.type() != ValueType.EMPTY) {
        String few =
            overlap.found() == 0 ? "none of its values is" : "only " + overlap.told() + " are";
        return words.pair(field, column, name, null, few + " among its choices");
      }
    }
    if (field.type() == FieldType.TEXT && Likeness.isTheTable(table, title)) {
      if (field.unique()) {
        score = Math.max(score, 75);
        because = "it is named like the table, and " + field.name() + " identifies its records";
      } else if (isLabel(table, field)) {
        score = Math.max(score, 70);
        because = "it is named like the table, and " + field.name() + " says what its records are";
      }
    }
    int fit = types.of(column, field);
    if (fit < 0 && TypeFit.isRead(field) && types.readable(column, field) >= MOSTLY) {
      fit = 0;
    }
    // a title over other values than it says is none to go by
    if (fit < 0
        && (!name.isSame() && score < Likeness.SAME || types.readable(column, field) < SOME)) {
      return null;
    }
    return isNoText(table, field, column)
        ? null
        : byValues(
            table,
            new Pair(
                field,
                column,
                score + fit,
                null,
                because,
                byName(name.score(), score > name.score())));
  }

  /** A column whose words say what the field does. */
  private static Pair saying(FieldInfo field, int column, Likeness name, String told) {
    return name.score() >= ENOUGH
        ? new Pair(
            field,
            column,
            name.score() + 40,
            null,
            name.because() + ", and " + told,
            Certainty.PLAIN)
        : Pair.byValues(field, column, ALL_CHOICES, told, Certainty.LIKELY);
  }

  /** True for the name of a table's records, or what they are where they have no name. */
  private static boolean isLabel(TableInfo table, FieldInfo field) {
    return Words.says(field.name(), "name")
        || Words.says(field.name(), "description")
            && table.fields().stream().noneMatch(f -> Words.says(f.name(), "name"));
  }

  /**
   * A column of words for which the field's description says the codes. Yes and no stand in many
   * columns, and say nothing by themselves.
   */
  private @Nullable Pair coded(FieldInfo field, int column, Likeness name, CommentCodes codes) {
    Overlap overlap = codes.overlap(linkValues.values(column));
    String told = overlap.told() + " are words for its codes, which its description tells";
    if (name.score() >= ENOUGH) {
      String because = name.because() + ", and " + told;
      return new Pair(field, column, name.score() + 40, null, because, Certainty.PLAIN);
    }
    boolean isOther = source.profiles().get(column).type() == ValueType.TEXT && !isConstant(column);
    return isOther ? Pair.byValues(field, column, ALL_CHOICES, told, Certainty.LIKELY) : null;
  }

  /**
   * How sure a pair is that names speak for.
   *
   * @param backed true if choices or the table's own name speak for it too
   */
  private static Certainty byName(int score, boolean backed) {
    return score >= Likeness.SAME || backed && score >= ENOUGH ? Certainty.PLAIN : Certainty.LIKELY;
  }

  /** Where the names say little, the values that the field holds already may say more. */
  private Pair byValues(TableInfo table, Pair byName) {
    Sketch.Agreement agreement = agreement(table, byName.field(), byName.column());
    if (byName.score() >= ENOUGH) {
      String because =
          agreement.score() >= ENOUGH
              ? byName.because() + ", and " + agreement.because()
              : byName.because();
      int score = byName.score() + agreement.score() / 5;
      boolean both = agreement.score() >= ENOUGH;
      return new Pair(
          byName.field(),
          byName.column(),
          score,
          null,
          because,
          both ? Certainty.PLAIN : byName.sure());
    }
    int score = agreement.score() + Math.max(0, byName.score()) / 4;
    return Pair.byValues(
        byName.field(),
        byName.column(),
        score,
        agreement.because(),
        agreement.score() >= STRONG ? Certainty.LIKELY : Certainty.GUESS);
  }

  /** The title without those above it that several columns share, as far as it counts here. */
  private String lowest(int column, String title) {
    return title.equals(source.columns().get(column)) ? source.lowestTitle(column) : title;
  }
}
