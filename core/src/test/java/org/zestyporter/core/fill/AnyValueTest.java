package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.zestyporter.core.Seeds;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Storage.Kind;

/** Whatever a cell holds, a field of whatever kind takes it or says why not. */
class AnyValueTest {
  private static final List<FieldInfo> FIELDS = fields();

  private static List<FieldInfo> fields() {
    List<FieldInfo> fields = new ArrayList<>();
    for (FieldType type : FieldType.values()) {
      FieldInfo plain = FieldInfo.of("f", type);
      fields.add(plain);
      fields.add(plain.withLength(4).withPrecision(4).withScale(2));
      if (type != FieldType.TEXT && type != FieldType.OTHER) {
        continue;
      }
      for (Kind kind :
          List.of(Kind.PADDED, Kind.CASELESS, Kind.UUID, Kind.JSON, Kind.BINARY, Kind.INTERVAL)) {
        fields.add(plain.withStorage(Storage.of(kind)));
        fields.add(plain.withStorage(Storage.of(kind)).withLength(4));
      }
      fields.add(plain.withStorage(Storage.set(List.of("a", "b c"))));
      fields.add(plain.withStorage(Storage.list(Storage.of(Kind.NUMBER))));
      fields.add(plain.withStorage(Storage.list(Storage.of(Kind.TEXT))));
    }
    for (int digits : new int[] {0, 3, 6}) {
      fields.add(timed(FieldType.TIME, Kind.TIME, digits));
      fields.add(timed(FieldType.DATETIME, Kind.MOMENT, digits));
      fields.add(timed(FieldType.DATETIME, Kind.INSTANT, digits));
    }
    return fields;
  }

  private static FieldInfo timed(FieldType type, Kind kind, int digits) {
    return FieldInfo.of("f", type).withStorage(Storage.timed(kind, digits));
  }

  @Provide
  Arbitrary<Object> values() {
    Arbitrary<String> texts =
        Arbitraries.strings()
            .withChars("aZ09 \t\n\u00A0\u2003.,:;-+/\\{}[]\"'()xX%\uD83D\uDEA4e\u0000é")
            .ofMaxLength(12);
    Arbitrary<String> padded =
        Arbitraries.strings().withChars("ab ").ofMaxLength(4).map(t -> t + "   ");
    Arbitrary<Object> typed =
        Arbitraries.of(
            new BigDecimal("1E+40"),
            new BigDecimal("-1E-40"),
            BigDecimal.ZERO,
            LocalDate.of(1, 1, 1),
            LocalDate.of(2026, 2, 28),
            LocalDateTime.of(9999, 12, 31, 23, 59, 59, 999_999_999),
            OffsetDateTime.parse("0001-01-01T00:00:00+14:00"),
            OffsetDateTime.parse("9999-12-31T23:59:59.9999999-12:00"),
            LocalTime.MAX,
            Boolean.TRUE);
    Arbitrary<Object> said =
        Arbitraries.of(
            "24:00:00",
            "23:59:59.9999999",
            "{1,2,{3}}",
            "{\"a\":1e999}",
            "\\x0",
            "P1Y2M",
            "-838:59:59",
            "2026-02-30",
            "0000-00-00",
            "9999-12-31T23:59:59.9999999Z",
            "[",
            "{");
    return Arbitraries.oneOf(texts.map(t -> t), padded.map(t -> t), typed, said);
  }

  @Property(tries = 300 * Seeds.MORE, seed = Seeds.SEED)
  void isTakenOrRefusedInWords(@ForAll("values") Object value) {
    for (FieldInfo field : FIELDS) {
      Object held = FieldCheck.conform(value, field);
      if (held instanceof Problem problem) {
        assertThat(problem.reason()).as("%s in %s", value, field).isNotBlank();
      } else {
        // what stands is what would stand if it were written once more
        assertThat(field.storage().same(held, FieldCheck.conform(held, field)))
            .as("%s in %s: %s", value, field, held)
            .isTrue();
      }
    }
  }
}
