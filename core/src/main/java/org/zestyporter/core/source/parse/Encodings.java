package org.zestyporter.core.source.parse;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.source.parse.Alphabets.Language;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.value.EightBytes;

/**
 * Tells in which encoding a text is written, and by what.
 *
 * <p>In this order: a byte order mark; the zeros that UTF-16 and UTF-32 put into Western text;
 * valid UTF-8 throughout; the escapes of ISO-2022; for anything else how well the words read in
 * each of the encodings that some language was written in ({@link Alphabets}).
 */
public final class Encodings {
  /** Bytes of the longest character in UTF-8. */
  static final int LONGEST = 4;

  private static final Map<String, int[]> MARKS = new LinkedHashMap<>();
  private static final int SAMPLE_BYTES = 48 * 1024;
  private static final int LONGEST_SAMPLE = 2000;

  private static final Pattern WORD = Pattern.compile("[\\p{L}]*[^\\p{ASCII}][\\p{L}\\p{M}]*");

  /** A likelier encoding is left only for one that reads so much better. */
  private static final double MARGIN = 0.02;

  static {
    MARKS.put("UTF-32LE", new int[] {0xFF, 0xFE, 0, 0});
    MARKS.put("UTF-32BE", new int[] {0, 0, 0xFE, 0xFF});
    MARKS.put("UTF-8", new int[] {0xEF, 0xBB, 0xBF});
    MARKS.put("UTF-16LE", new int[] {0xFF, 0xFE});
    MARKS.put("UTF-16BE", new int[] {0xFE, 0xFF});
  }

  private Encodings() {}

  /** Encoding of a byte order mark; null if there is none. */
  static String marked(byte[] head) {
    for (Map.Entry<String, int[]> e : MARKS.entrySet()) {
      int[] mark = e.getValue();
      boolean same = head.length >= mark.length;
      for (int i = 0; same && i < mark.length; i++) {
        same = (head[i] & 0xFF) == mark[i];
      }
      if (same) {
        return e.getKey();
      }
    }
    return null;
  }

  static int markLength(byte[] head) {
    String marked = marked(head);
    return marked == null ? 0 : MARKS.get(marked).length;
  }

  /** UTF-16 or UTF-32 by where its zeros stand; null if there are no such zeros. */
  static String wide(byte[] head) {
    int[] zeros = new int[4];
    int length = Math.min(head.length, 4096) & ~3;
    for (int i = 0; i < length; i++) {
      zeros[i & 3] += head[i] == 0 ? 1 : 0;
    }
    int quarter = length / 4;
    if (quarter < 2) {
      return null;
    }
    if (zeros[1] == quarter && zeros[2] == quarter && zeros[3] == quarter && zeros[0] == 0) {
      return "UTF-32LE";
    }
    if (zeros[0] == quarter && zeros[1] == quarter && zeros[2] == quarter && zeros[3] == 0) {
      return "UTF-32BE";
    }
    int even = zeros[0] + zeros[2];
    int odd = zeros[1] + zeros[3];
    if (odd * 10 > quarter * 2 * 3 && even * 20 < odd) {
      return "UTF-16LE";
    }
    return even * 10 > quarter * 2 * 3 && odd * 20 < even ? "UTF-16BE" : null;
  }

  /**
   * The encoding of a file, with the reason.
   *
   * @param most bytes that are looked at; all of them make it sure
   */
  public static Evidence find(Path file, long most) throws IOException {
    byte[] head = TextFiles.head(file);
    String marked = marked(head);
    if (marked != null) {
      return new Evidence("encoding", marked, "the file begins with its byte order mark");
    }
    String wide = wide(head);
    if (wide != null) {
      return new Evidence(
          "encoding", wide, "every plain letter has zero bytes beside it, and there is no mark");
    }
    Scan scan = scan(file, most);
    if (scan.foreign == 0) {
      return new String(head, java.nio.charset.StandardCharsets.ISO_8859_1).contains("\u001B$")
          ? new Evidence("encoding", "ISO-2022-JP", "its escape sequences switch to Japanese")
          : new Evidence("encoding", "UTF-8", "only plain ASCII characters, the same everywhere");
    }
    if (scan.invalidAt < 0) {
      return new Evidence("encoding", "UTF-8", "all accented characters are valid UTF-8");
    }
    return guess(scan);
  }

  private static Evidence guess(Scan scan) {
    byte[] sample = scan.sample.toByteArray();
    if (scan.invalid * 20 <= scan.foreign) {
      return new Evidence(
          "encoding",
          "UTF-8",
          scan.invalid + " of " + scan.foreign + " accented characters are broken, all others fit");
    }
    String best = "windows-1252";
    double bestReads = Double.NEGATIVE_INFINITY;
    for (Map.Entry<String, List<Language>> e : Alphabets.byEncoding().entrySet()) {
      String text = decoded(sample, e.getKey());
      double reads =
          e.getValue().stream().mapToDouble(language -> language.reads(text)).max().orElseThrow()
              - Alphabets.rarity(e.getKey());
      if (reads > bestReads + MARGIN) {
        best = e.getKey();
        bestReads = reads;
      }
    }
    return reason(best, sample);
  }

  private static Evidence reason(String name, byte[] sample) {
    Matcher word = WORD.matcher(decoded(sample, name));
    String shown = "";
    while (shown.length() < 3 && word.find()) {
      shown = word.group();
    }
    return new Evidence(
        "encoding",
        name,
        "not valid UTF-8; in this one the words read best, such as “" + shown + "”");
  }

  private static String decoded(byte[] sample, String name) {
    CharBuffer text = TextFiles.charset(name).decode(ByteBuffer.wrap(sample));
    return text.toString();
  }

  /** What a pass over the whole file tells of its bytes. */
  private static final class Scan {
    private long foreign;
    private long invalid;
    private long invalidAt = -1;
    private final ByteArrayOutputStream sample = new ByteArrayOutputStream();
  }

  /** Checks every byte as UTF-8 (RFC 3629) and collects the lines with foreign bytes. */
  private static Scan scan(Path file, long most) throws IOException {
    Scan scan = new Scan();
    byte[] buffer = new byte[1 << 18];
    int kept = 0;
    long seen = 0;
    try (InputStream in = Files.newInputStream(file)) {
      int n;
      while ((n = in.readNBytes(buffer, kept, buffer.length - kept)) > 0 || kept > 0) {
        int end = kept + n;
        boolean last = end < buffer.length;
        int done = scan(buffer, end, last, scan);
        kept = end - done;
        System.arraycopy(buffer, done, buffer, 0, kept);
        seen += n;
        if (last || seen >= most) {
          break;
        }
      }
    }
    return scan;
  }

  private static int scan(byte[] b, int end, boolean last, Scan scan) {
    int sampled = 0;
    int i = plainUntil(b, 0, end);
    while (i < end) {
      if (b[i] >= 0) {
        i = plainUntil(b, i, end);
        continue;
      }
      int length = sequence(b, i, end);
      if (length < 0 && !last && end - i < 4) {
        break;
      }
      scan.foreign++;
      if (length <= 0) {
        scan.invalid++;
        scan.invalidAt = scan.invalidAt < 0 ? i : scan.invalidAt;
      }
      if (scan.sample.size() < SAMPLE_BYTES && i >= sampled) {
        // whole lines, so that no character of several bytes is cut
        int from = i;
        while (from > sampled && i - from < LONGEST_SAMPLE && b[from - 1] != '\n') {
          from--;
        }
        int to = i;
        while (to < end && to - i < LONGEST_SAMPLE && b[to] != '\n') {
          to++;
        }
        scan.sample.write(b, from, to - from);
        scan.sample.write('\n');
        sampled = to;
      }
      i += Math.max(1, length);
    }
    return i;
  }

  /** Where the first byte stands that is not one of ASCII; the end if all are. */
  static int plainUntil(byte[] bytes, int from, int end) {
    int at = from;
    while (at + Long.BYTES <= end && (EightBytes.get(bytes, at) & EightBytes.HIGHEST) == 0) {
      at += Long.BYTES;
    }
    while (at < end && bytes[at] >= 0) {
      at++;
    }
    return at;
  }

  /** Where the first sequence stands that is none in UTF-8, or cut; the end if all are whole. */
  static int validUntil(byte[] bytes, int from, int end) {
    int at = from;
    while (at < end) {
      int length = bytes[at] >= 0 ? 1 : sequence(bytes, at, end);
      if (length <= 0) {
        return at;
      }
      at += length;
    }
    return end;
  }

  /** Length of the UTF-8 sequence here; 0 if it is none, -1 if it is cut. */
  private static int sequence(byte[] b, int at, int end) {
    int first = b[at] & 0xFF;
    int length =
        first >= 0xC2 && first < 0xE0
            ? 2
            : first >= 0xE0 && first < 0xF0 ? 3 : first >= 0xF0 && first < 0xF5 ? 4 : 0;
    for (int i = 1; i < length; i++) {
      if (at + i >= end) {
        return -1;
      }
      int next = b[at + i] & 0xFF;
      boolean low = i == 1 && (first == 0xE0 && next < 0xA0 || first == 0xF0 && next < 0x90);
      boolean high = i == 1 && (first == 0xED && next > 0x9F || first == 0xF4 && next > 0x8F);
      if ((next & 0xC0) != 0x80 || low || high) {
        return 0;
      }
    }
    return length;
  }

  /** True for bytes that are no text in any encoding that is known here. */
  static boolean isBinary(byte[] head) {
    if (marked(head) != null || wide(head) != null) {
      return false;
    }
    int odd = 0;
    for (byte b : head) {
      if (b == 0) {
        return true;
      }
      if (b > 0 && b < 28 && b != '\t' && b != '\n' && b != '\r' && b != '\f' && b != 0x1A
          && b != 0x1B && b > 2) {
        odd++;
      }
    }
    return odd > head.length / 50;
  }

  public static boolean startsWith(byte[] bytes, byte... prefix) {
    return bytes.length >= prefix.length
        && Arrays.equals(bytes, 0, prefix.length, prefix, 0, prefix.length);
  }
}
