package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Formats;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.OtherCalendar;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/** Reads a text as a date, or as a moment if it holds a time. */
public final class ReadDate extends Operation {

  ReadDate() {
    super(
        Group.READ,
        "Read as date",
        "in the sender's order of day, month and year",
        Setting.choice("order", "day-month-year", "month-day-year", "year-month-day").open(),
        Setting.choice("century", "19", "20").open(),
        Setting.text("pattern").open(),
        Setting.choice(
                "calendar",
                Arrays.stream(OtherCalendar.values())
                    .map(OtherCalendar::word)
                    .toArray(String[]::new))
            .open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    DateOrder order = order(step, names.locale());
    String century = step.setting("century", names.locale().century());
    String pattern = step.setting("pattern");
    String word = step.setting("calendar");
    OtherCalendar calendar = word == null ? null : OtherCalendar.of(word);
    return (value, row) -> {
      if (value instanceof BigDecimal number && pattern == null) {
        return new Problem(ProblemCode.NOT_A_DATE, Values.text(number), "a number, not a date");
      }
      String text = value instanceof BigDecimal number ? Values.plain(number) : null;
      text = value instanceof String s ? s : text;
      if (text == null) {
        return calendar == null ? value : calendar.meant(value);
      }
      if (calendar != null) {
        return calendar.read(text, order);
      }
      if (pattern != null) {
        return Formats.readDate(text, pattern);
      }
      return text.indexOf(':') > 0
          ? ValueReader.dateTime(text, order, century)
          : ValueReader.date(text, order, century);
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    List<Map<String, String>> settings =
        new ArrayList<>(List.of(Map.of(), Map.of("century", "20")));
    for (DateOrder order : DateOrder.values()) {
      settings.add(Map.of("order", order.word()));
      settings.add(Map.of("order", order.word(), "century", "20"));
    }
    settings.add(Map.of("pattern", "mmm yyyy"));
    for (OtherCalendar calendar : OtherCalendar.values()) {
      settings.add(Map.of("calendar", calendar.word()));
    }
    return settings;
  }

  @Override
  boolean followsDateOrder(Step step) {
    return step.setting("order") == null && step.setting("pattern") == null;
  }

  /** True if a step reads days of our calendar, as they are mostly written. */
  public static boolean isPlain(Step step) {
    return step.setting("pattern") == null && step.setting("calendar") == null;
  }

  /** The order of day, month and year that a step reads in. */
  public static DateOrder order(Step step, LocaleSettings locale) {
    String word = step.setting("order");
    return word == null ? locale.dateOrder() : DateOrder.of(word);
  }
}
