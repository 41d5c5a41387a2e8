package org.zestyporter.core.draft;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Words;

/**
 * What no file holds and an application usually enters by itself: who made a record and when, and
 * an identifier that nobody has used before.
 */
final class Stamps {
  /** The part of a name that says at which time; a time zone may follow. */
  private static final String WHEN = "(?:at|on|date|time|datetime|timestamp|ts)?(?:utc)?";

  private static final String MADE = "(?:created|entered|added|inserted|recorded)";
  private static final String CHANGED = "(?:last)?(?:updated|changed|modified)";

  /** Names are looked at without capitals, accents, and what stands between their words. */
  private static final Pattern WHO = Pattern.compile(MADE + "by(?:user(?:name)?)?");

  private static final Pattern WHEN_MADE =
      Pattern.compile(
          MADE
              + WHEN
              + "|(?:creation|insert|insertion)(?:date|time|datetime|timestamp|ts)(?:utc)?"
              + "|(?:date|time)(?:of)?(?:created|creation|entered|added|inserted)"
              + "|(?:erstellt|angelegt|erfasst)(?:am|datum|zeit)?|erstell(?:ungs)?datum"
              + "|anlagedatum|date(?:de)?creation|creele|fecha(?:de)?creacion|creadoe[nl]"
              + "|data(?:di)?creazione|creatoil|aangemaaktop|aanmaakdatum");

  private static final Pattern WHEN_CHANGED =
      Pattern.compile(
          CHANGED
              + WHEN
              + "|last(?:update|change|modification)(?:date|time|datetime|timestamp|ts)?(?:utc)?"
              + "|(?:modification|update|change)(?:date|time|datetime|timestamp|ts)(?:utc)?"
              + "|date(?:last)?(?:updated|changed|modified)"
              + "|(?:geae?ndert|aktualisiert)(?:am|datum|zeit)?|ae?nderungsdatum"
              + "|date(?:de)?modification|modifiele|fecha(?:de)?modificacion|actualizadoe[nl]"
              + "|data(?:di)?modifica|modificatoil|gewijzigdop|wijzigingsdatum");

  private Stamps() {}

  /** What fills a field of which no column tells; null if it is none that is stamped. */
  static PlanDraft.@Nullable Own of(FieldInfo field) {
    String name = String.join("", Words.split(field.name()));
    if (field.type() == FieldType.TEXT && WHO.matcher(name).matches()) {
      return stamp(field, Origin.Generator.WHO, "its name asks who entered the record", true);
    }
    if (!field.required() || field.link() != null) {
      return null;
    }
    if (field.type() == FieldType.DATETIME || field.type() == FieldType.DATE) {
      return WHEN_MADE.matcher(name).matches()
          ? stamp(field, Origin.Generator.RUN_TIME, "its name asks when the record was made", true)
          : WHEN_CHANGED.matcher(name).matches()
              ? stamp(
                  field,
                  Origin.Generator.RUN_TIME,
                  "its name asks when the record was changed last",
                  false)
              : null;
    }
    return field.storage().kind() == Storage.Kind.UUID && field.unique()
        ? stamp(field, Origin.Generator.UUID, "it is required, unique, and a UUID", true)
        : null;
  }

  private static PlanDraft.Own stamp(
      FieldInfo field, Origin.Generator generator, String because, boolean onlyNew) {
    Fill fill = Fill.of(field.name(), Origin.generated(generator));
    return new PlanDraft.Own(onlyNew ? fill.forNewOnly() : fill, because, 0);
  }
}
