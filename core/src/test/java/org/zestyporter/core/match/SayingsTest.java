package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/** What rows say is told apart by the values, not by the form in which a chunk holds them. */
class SayingsTest {
  private static final TableInfo TABLE =
      new TableInfo(
          null,
          "song",
          null,
          List.of(
              FieldInfo.of("title", FieldType.TEXT),
              FieldInfo.of("fee", FieldType.DECIMAL),
              FieldInfo.of("sung", FieldType.DATE)),
          List.of(),
          List.of());
  private static final Sayings ALL = new Sayings(TABLE.fields(), TABLE);

  private static List<Byte> said(ValueColumn... columns) {
    Utf8 out = new Utf8(16);
    ALL.write(columns, 0, out);
    byte[] bytes = Arrays.copyOf(out.array(), out.size());
    return new String(bytes, StandardCharsets.ISO_8859_1).chars().mapToObj(c -> (byte) c).toList();
  }

  private static ValueColumn any(Object value) {
    return ValueColumn.of(new Object[] {value}, null);
  }

  private static ValueColumn text(String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    return ValueColumn.texts(bytes, new int[] {0}, new int[] {bytes.length}, null);
  }

  private static ValueColumn number(long unscaled, int scale) {
    return ValueColumn.numbers(new long[] {unscaled}, scale, null);
  }

  private static ValueColumn day(String day) {
    return ValueColumn.dates(new long[] {LocalDate.parse(day).toEpochDay()}, null);
  }

  @Test
  void theSameValuesSayTheSame() {
    List<Byte> told = said(text("Abendlied"), number(100_00, 2), day("1969-12-30"));
    assertThat(said(any("Abendlied"), any(new BigDecimal("1E+2")), any(LocalDate.of(1969, 12, 30))))
        .isEqualTo(told);
    assertThat(said(any("Abendlied"), number(100, 0), day("1969-12-30"))).isEqualTo(told);
    assertThat(said(text("Abendlied"), any(new BigDecimal("100.000")), day("1969-12-30")))
        .isEqualTo(told);
    assertThat(said(text("x"), any(new BigDecimal("-0.50")), null))
        .isEqualTo(said(any("x"), number(-5, 1), any(null)));
  }

  @Test
  void othersDoNot() {
    Set<List<Byte>> all = new HashSet<>();
    String many = "123456789012345678901234567890";
    all.add(said(text("a"), number(1, 0), day("2026-01-01")));
    all.add(said(text("a"), number(1, 1), day("2026-01-01")));
    all.add(said(text("a"), number(-1, 0), day("2026-01-01")));
    all.add(said(text("a"), any(null), day("2026-01-01")));
    all.add(said(text("a"), number(1, 0), null));
    all.add(said(text("b"), number(1, 0), day("2026-01-01")));
    all.add(said(any(null), number(1, 0), day("2026-01-02")));
    all.add(said(text("a"), any(new BigDecimal(many)), null));
    all.add(said(text("a"), any(new BigDecimal(many + "1")), null));
    all.add(said(text("a"), any(new BigDecimal("0." + many)), null));
    assertThat(all).hasSize(10);
  }
}
