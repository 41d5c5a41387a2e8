package org.zestyporter.core.plan;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Storage;

/** Checks the match keys of a destination, and what is to happen to rows by what they match. */
final class KeyCheck {
  private final Destination destination;
  private final TableInfo table;
  private final List<PlanCheck.Matter> matters;

  KeyCheck(Destination destination, TableInfo table, List<PlanCheck.Matter> matters) {
    this.destination = destination;
    this.table = table;
    this.matters = matters;
  }

  private void matter(ErrorCode code, @Nullable String field, String message) {
    matters.add(new PlanCheck.Matter(code, field, message));
  }

  /**
   * @param filled names of the fields that something fills
   */
  void check(Set<String> filled) {
    for (MatchKey key : destination.keys()) {
      if (key.fields().isEmpty()) {
        matter(ErrorCode.EMPTY_KEY, null, "A match key needs at least one field.");
      }
      for (String name : key.fields()) {
        FieldInfo field = table.find(name);
        if (field == null || !filled.contains(field.name())) {
          matter(
              ErrorCode.KEY_NOT_FILLED,
              name,
              "The match key uses " + name + ", which nothing fills.");
        }
      }
    }
    destination.keys().stream().filter(MatchKey::isNear).forEach(this::near);
    Policies policies = destination.policies();
    if (policies.onSeveral() == Policies.OnSeveral.LATEST
        && (policies.latestBy() == null || table.find(policies.latestBy()) == null)) {
      matter(
          ErrorCode.NO_LATEST,
          policies.latestBy(),
          "Of several records the latest is to be taken, but no field of "
              + table.name()
              + " says which one that is. Choose a date or a number.");
    }
    if (!destination.keys().isEmpty() && table.primaryKey().isEmpty()) {
      matter(
          ErrorCode.NO_PRIMARY_KEY,
          null,
          table.name()
              + " has no primary key, so its records can't be updated. Take away the"
              + " match key to add every row.");
    }
  }

  private void near(MatchKey key) {
    if (destination.distinct()) {
      matter(
          ErrorCode.NEAR,
          null,
          destination.label()
              + " makes one record for each distinct key, so that the fields of its key have"
              + " to agree.");
    }
    key.nearIn()
        .forEach(
            (name, how) -> {
              FieldInfo field = table.find(name);
              if (field == null || !key.fields().contains(name)) {
                matter(
                    ErrorCode.NEAR,
                    name,
                    "The match key is to be near in " + name + ", which is no field of it.");
              } else if (!isNearness(how, field.storage().kind())) {
                matter(
                    ErrorCode.NEAR,
                    name,
                    "The match key can't be near in "
                        + name
                        + " by \""
                        + how
                        + "\". Texts are near by similar spelling, numbers and dates within a"
                        + " distance above 0, such as 0.5.");
              }
            });
  }

  private static boolean isNearness(String how, Storage.Kind kind) {
    return switch (kind) {
      case TEXT, PADDED, CASELESS -> how.equals(MatchKey.SPELLING);
      case NUMBER, REAL, DOUBLE, DATE ->
          how.matches("\\d{1,9}(\\.\\d{1,9})?") && how.matches(".*[1-9].*");
      default -> false;
    };
  }
}
