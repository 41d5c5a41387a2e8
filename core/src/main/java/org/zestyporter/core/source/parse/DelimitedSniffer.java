package org.zestyporter.core.source.parse;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.source.reading.Escape;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;

/** Tells how a text is parted into cells. */
public final class DelimitedSniffer {
  private static final List<String> USUAL = List.of(";", "\t", ",", "|");
  private static final List<String> RARE =
      List.of("^", "~", "\u0001", "\u001F", "\u001E", "¦", "§", "!", "#", ":", "*", "&", "=");
  private static final List<String> LONG = List.of("||", "::", "~|~", "^|^", "##", "~~", "|~|");
  private static final Pattern SEPARATOR_LINE = Pattern.compile("(?i)sep=(.)\\r?(\\n|\\r)(?s).*");
  private static final int LINES = 1000;

  private DelimitedSniffer() {}

  /**
   * How the text is parted.
   *
   * @param agreement share of the lines that part alike, 0 to 1
   * @param cells cells of such a line; 1 if no delimiter was found
   */
  public record Found(
      String delimiter,
      String quote,
      Escape escape,
      String comment,
      double agreement,
      int cells,
      List<Evidence> evidence) {}

  private record Score(String delimiter, int cells, long agree, int lines) {
    double share() {
      return lines == 0 ? 0 : (double) agree / lines;
    }

    /** The share of agreeing lines counts in tenths, then the number of cells. */
    double value() {
      return Math.floor(share() * 20) * 100 + Math.min(cells, 99);
    }
  }

  /** Length of a first line {@code sep=;}, with its end; 0 if there is none. */
  static int separatorLine(String text) {
    Matcher m = SEPARATOR_LINE.matcher(text);
    if (!m.matches()) {
      return 0;
    }
    int end = m.end(2);
    return end < text.length() && m.group(2).equals("\r") && text.charAt(end) == '\n'
        ? end + 1
        : end;
  }

  /**
   * Finds what is left open.
   *
   * @param head the beginning of the text
   * @param cutShort true if the text goes on
   */
  public static Found find(String head, boolean cutShort, Reading wanted) {
    List<Evidence> evidence = new ArrayList<>();
    String text = head.substring(separatorLine(head));
    String comment = wanted.comment() != null ? wanted.comment() : comment(text, evidence);
    String quote = wanted.quote() != null ? wanted.quote() : quote(text, evidence);
    Escape escape = wanted.escape() != null ? wanted.escape() : escape(text, quote, evidence);
    List<String> lines = records(text, quote, escape, comment, cutShort);
    String delimiter = wanted.delimiter();
    Score score;
    if (delimiter != null) {
      score = score(lines, delimiter, quote, escape);
    } else if (text.length() < head.length()) {
      delimiter = head.substring(4, 5);
      score = score(lines, delimiter, quote, escape);
      evidence.add(
          new Evidence("delimiter", delimiter, "the first line says so: sep=" + delimiter));
    } else {
      score = best(lines, quote, escape);
      delimiter = score.delimiter();
      evidence.add(
          new Evidence(
              "delimiter",
              delimiter,
              score.cells() == 1
                  ? "no line can be parted, so there is one column"
                  : String.format(
                      Locale.ROOT,
                      "%s of the first %,d lines part into %d cells",
                      score.agree() == score.lines() ? "all" : String.format("%,d", score.agree()),
                      score.lines(),
                      score.cells())));
    }
    return new Found(delimiter, quote, escape, comment, score.share(), score.cells(), evidence);
  }

  private static Score best(List<String> lines, String quote, Escape escape) {
    Score best = new Score(",", 1, 0, lines.size());
    for (String delimiter : USUAL) {
      Score score = score(lines, delimiter, quote, escape);
      if (score.cells() > 1 && score.value() > best.value()) {
        best = score;
      }
    }
    for (String delimiter : RARE) {
      Score score = score(lines, delimiter, quote, escape);
      boolean sure = score.share() >= 0.95 && score.cells() > 2;
      if (sure && (best.cells() == 1 || best.share() < 0.6)) {
        best = score;
      }
    }
    for (String delimiter : LONG) {
      Score score = score(lines, delimiter, quote, escape);
      if (score.share() >= 0.95
          && score.cells() > 1
          && (best.cells() < score.cells() || delimiter.contains(best.delimiter()))) {
        return score;
      }
    }
    return best;
  }

  private static Score score(List<String> lines, String delimiter, String quote, Escape escape) {
    Map<Integer, Long> widths = new TreeMap<>();
    for (String line : lines) {
      widths.merge(cells(line, delimiter, quote, escape), 1L, Long::sum);
    }
    return widths.entrySet().stream()
        .filter(e -> e.getKey() > 1)
        .max(Map.Entry.<Integer, Long>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
        .map(e -> new Score(delimiter, e.getKey(), e.getValue(), lines.size()))
        .orElse(new Score(delimiter, 1, lines.size(), lines.size()));
  }

  private static int cells(String line, String delimiter, String quote, Escape escape) {
    int count = 1;
    boolean inside = false;
    boolean start = true;
    char q = quote.isEmpty() ? 0 : quote.charAt(0);
    for (int i = 0; i < line.length(); i++) {
      char c = line.charAt(i);
      if (c == '\\' && escape == Escape.BACKSLASH) {
        i++;
      } else if (q != 0 && c == q && (inside || start)) {
        inside = !inside;
      } else if (!inside && line.startsWith(delimiter, i)) {
        count++;
        i += delimiter.length() - 1;
        start = true;
        continue;
      }
      // a quote that closes may open again at once: a doubled one
      start = q != 0 && c == q || start && c == ' ';
    }
    return count;
  }

  /** Up to 1,000 records that are not blank; a line break inside quotes does not end one. */
  private static List<String> records(
      String text, String quote, Escape escape, String comment, boolean cutShort) {
    List<String> records = new ArrayList<>();
    char q = quote.isEmpty() ? 0 : quote.charAt(0);
    boolean inside = false;
    int start = 0;
    for (int i = 0; i <= text.length() && records.size() < LINES; i++) {
      boolean end = i == text.length();
      char c = end ? '\n' : text.charAt(i);
      if (c == '\\' && escape == Escape.BACKSLASH) {
        i++;
      } else if (q != 0 && c == q && (inside || mayOpen(text, i))) {
        inside = !inside;
      } else if ((c == '\n' || c == '\r') && (!inside || end)) {
        String record = text.substring(start, Math.min(i, text.length()));
        boolean isComment = !comment.isEmpty() && record.startsWith(comment);
        if (!record.isBlank() && !isComment && !(end && cutShort && !records.isEmpty())) {
          records.add(record);
        }
        start = i + 1;
      }
    }
    return records;
  }

  /** False for a quote inside a word or behind one: inches, abbreviations. */
  private static boolean mayOpen(String text, int at) {
    int before = at - 1;
    while (before >= 0 && text.charAt(before) == ' ') {
      before--;
    }
    return before < 0 || !Character.isLetterOrDigit(text.charAt(before));
  }

  /** Lines at the top, or among others, that begin with a sign no other cell begins with. */
  private static String comment(String text, List<Evidence> evidence) {
    List<String> lines = TextFiles.lines(text, true, LINES);
    for (String sign : List.of("#", "//")) {
      long such = lines.stream().filter(l -> l.startsWith(sign)).count();
      long other = lines.stream().filter(l -> !l.isBlank() && !l.startsWith(sign)).count();
      if (such == 0 || other == 0 || such > other) {
        continue;
      }
      boolean unlike =
          USUAL.stream()
              .noneMatch(
                  d ->
                      lines.stream()
                          .filter(l -> l.startsWith(sign))
                          .anyMatch(l -> cells(l, d, "\"", Escape.DOUBLED) > 2));
      if (unlike) {
        evidence.add(
            new Evidence(
                "comment",
                sign,
                String.format(
                    Locale.ROOT, "%,d lines begin with it and do not part like the others", such)));
        return sign;
      }
    }
    return "";
  }

  private static String quote(String text, List<Evidence> evidence) {
    int doubled = pairs(text, '"');
    int single = pairs(text, '\'');
    if (single > 2 && single > doubled * 3) {
      evidence.add(
          new Evidence(
              "quote", "'", String.format(Locale.ROOT, "%,d cells stand between them", single)));
      return "'";
    }
    if (doubled > 0) {
      evidence.add(
          new Evidence(
              "quote", "\"", String.format(Locale.ROOT, "%,d cells stand between them", doubled)));
    } else {
      evidence.add(new Evidence("quote", "\"", "the usual one; no cell is quoted so far"));
    }
    return "\"";
  }

  /** Cells of the first lines that begin and end with the quote. */
  private static int pairs(String text, char quote) {
    Matcher m =
        Pattern.compile(
                "(?:^|[;,\\t|^~:\\n\\r])"
                    + quote
                    + "(?:[^"
                    + quote
                    + "\\n\\r]|"
                    + quote
                    + quote
                    + "){0,200}+"
                    + quote
                    + "(?=[;,\\t|^~:\\n\\r]|$)")
            .matcher(text.substring(0, Math.min(text.length(), 64 * 1024)));
    int count = 0;
    while (m.find()) {
      count++;
    }
    return count;
  }

  private static Escape escape(String text, String quote, List<Evidence> evidence) {
    if (quote.isEmpty() || !text.contains("\\" + quote)) {
      return Escape.DOUBLED;
    }
    int behind = 0;
    int twice = 0;
    for (int i = 0; i + 2 < text.length(); i++) {
      char c = text.charAt(i);
      if (c == '\\' && text.charAt(i + 1) == quote.charAt(0)) {
        behind += ";,\t|\r\n".indexOf(text.charAt(i + 2)) < 0 ? 1 : 0;
      } else if (c == quote.charAt(0)
          && text.charAt(i + 1) == c
          && ";,\t|\r\n".indexOf(text.charAt(i + 2)) < 0) {
        twice++;
      }
    }
    if (behind <= twice) {
      return Escape.DOUBLED;
    }
    evidence.add(
        new Evidence(
            "escape",
            Escape.BACKSLASH.word(),
            String.format(Locale.ROOT, "%,d quotes stand behind a backslash", behind)));
    return Escape.BACKSLASH;
  }
}
