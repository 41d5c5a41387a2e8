package org.zestyporter.core.source.parse;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PushbackInputStream;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.value.ErrorCode;

/** Files of text as characters. */
public final class TextFiles {
  /** How much of a file is looked at to tell its format and layout. */
  public static final int HEAD_BYTES = 256 * 1024;

  private static final int MARK_BYTES = 4;

  private static final Map<String, String> EXTENDED =
      Map.of(
          "shift_jis", "windows-31j",
          "euc-kr", "x-windows-949",
          "big5", "x-windows-950",
          "gb2312", "GB18030",
          "gbk", "GB18030");

  private TextFiles() {}

  /** The first bytes of a file. */
  public static byte[] head(Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return in.readNBytes(HEAD_BYTES);
    }
  }

  /** How an encoding is called here, by whatever of its names it was given. */
  public static String nameOf(String name) {
    Charset found = charset(name);
    return EXTENDED.containsKey(name.toLowerCase(Locale.ROOT)) ? name : found.name();
  }

  /** The characters of a file, without its byte order mark; what can't be decoded is U+FFFD. */
  static Reader reader(Path file, Charset charset, ReadProgress progress) throws IOException {
    return new InputStreamReader(
        new BufferedInputStream(unmarked(file, progress), 1 << 16), decoder(charset));
  }

  /** Decodes as files are decoded: to U+FFFD what can't be. */
  static CharsetDecoder decoder(Charset charset) {
    return charset
        .newDecoder()
        .onMalformedInput(CodingErrorAction.REPLACE)
        .onUnmappableCharacter(CodingErrorAction.REPLACE);
  }

  /** The bytes of a file, without its byte order mark. */
  static InputStream unmarked(Path file, ReadProgress progress) throws IOException {
    progress.total(Files.size(file));
    InputStream in = progress.counting(Files.newInputStream(file));
    try {
      return withoutMark(in);
    } catch (IOException e) {
      in.close();
      throw e;
    }
  }

  private static InputStream withoutMark(InputStream in) throws IOException {
    byte[] first = in.readNBytes(MARK_BYTES);
    int mark = Encodings.markLength(first);
    PushbackInputStream rest = new PushbackInputStream(in, MARK_BYTES);
    rest.unread(first, mark, first.length - mark);
    return rest;
  }

  /** The first characters of a file, without its byte order mark. */
  public static String headText(byte[] head, Charset charset) {
    int mark = Encodings.markLength(head);
    CharBuffer text = charset.decode(ByteBuffer.wrap(head, mark, head.length - mark));
    return text.toString();
  }

  /** The physical lines of a text, blank ones too; the last one is dropped if it may be cut. */
  public static List<String> lines(String text, boolean cutShort, int limit) {
    List<String> lines = new ArrayList<>();
    int start = 0;
    for (int i = 0; i < text.length() && lines.size() < limit; i++) {
      char c = text.charAt(i);
      if (c == '\n' || c == '\r') {
        lines.add(text.substring(start, i));
        if (c == '\r' && i + 1 < text.length() && text.charAt(i + 1) == '\n') {
          i++;
        }
        start = i + 1;
      }
    }
    if (start < text.length() && lines.size() < limit && (!cutShort || lines.isEmpty())) {
      lines.add(text.substring(start));
    }
    return lines;
  }

  /**
   * The encoding of that name. Names of East Asian ones mean what files are written in that are
   * called so: with the signs that Windows added to them (as the WHATWG's Encoding Standard has
   * it).
   */
  public static Charset charset(String name) {
    try {
      return Charset.forName(EXTENDED.getOrDefault(name.toLowerCase(Locale.ROOT), name));
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw ErrorCode.ENCODING.error("There is no encoding “" + name + "”.", e);
    }
  }
}
