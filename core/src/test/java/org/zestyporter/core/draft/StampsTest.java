package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;

/** Fields that nobody's list fills. */
class StampsTest {
  @TempDir Path folder;

  /** What no file holds and the application would enter by itself. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void requiredStampsAreGenerated(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      // MariaDB gives a TIMESTAMP the time by itself
      String moment = on.name().equals("MariaDB") ? "DATETIME" : "TIMESTAMP";
      boolean hasUuid = Set.of("PostgreSQL", "H2").contains(on.name());
      on.execute(
          "CREATE TABLE item (sku VARCHAR(20) NOT NULL UNIQUE, packed DATE, created_on DATE,"
              + " created_at "
              + moment
              + " NOT NULL, "
              + on.quoted("<updatedAt> " + moment + " NOT NULL, ")
              + "ident "
              + (hasUuid ? "UUID NOT NULL UNIQUE)" : "VARCHAR(36))"));
      try (SourceTable source = PlanDraftTest.file(folder, "SKU", "S1", "S2")) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("item"));
        List<String> stamped = new ArrayList<>();
        for (Fill fill : draft.destination().fills()) {
          if (fill.origin() instanceof Origin.Generated generated) {
            stamped.add(fill.field() + " " + generated.generator().word() + " " + fill.onlyNew());
          }
        }
        List<String> wanted =
            new ArrayList<>(List.of("created_at run-time true", "updatedAt run-time false"));
        if (hasUuid) {
          wanted.add("ident uuid true");
        }
        assertThat(stamped).containsExactlyElementsOf(wanted);
      }
    }
  }

  /** As applications elsewhere call them; a day of something else is none. */
  @Test
  void stampsAreKnownByManyNames() {
    for (String name :
        List.of(
            "CreatedAtUtc",
            "created_on",
            "CreationTime",
            "DATE_CREATED",
            "insert_ts",
            "erstellt_am",
            "Créé le",
            "fecha_creacion",
            "aangemaaktOp")) {
      assertThat(Stamps.of(moment(name))).as(name).isNotNull();
      assertThat(Stamps.of(moment(name)).fill().onlyNew()).as(name).isTrue();
    }
    for (String name :
        List.of(
            "ModifiedAtUtc", "last_update", "LastModificationTime", "geändert_am", "modifié le")) {
      assertThat(Stamps.of(moment(name))).as(name).isNotNull();
      assertThat(Stamps.of(moment(name)).fill().onlyNew()).as(name).isFalse();
    }
    for (String name : List.of("Date", "due_date", "recreated_at", "update_due", "createdFor")) {
      assertThat(Stamps.of(moment(name))).as(name).isNull();
    }
    FieldInfo who = FieldInfo.of("CreatedByUser", FieldType.TEXT);
    assertThat(Stamps.of(who).fill().origin()).isEqualTo(Origin.generated(Origin.Generator.WHO));
  }

  private static FieldInfo moment(String name) {
    return FieldInfo.of(name, FieldType.DATETIME).withNullable(false);
  }
}
