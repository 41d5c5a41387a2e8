package org.zestyporter.core.source.parse;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.zestyporter.core.source.reading.ReadProgress;

/**
 * The text of a file in UTF-8, in whatever encoding it is written; without its byte order mark, and
 * with U+FFFD for what can't be decoded. Bytes that mean the same in UTF-8 are passed on as they
 * are.
 */
final class Utf8Input implements Closeable {
  private static final int BLOCK = 1 << 15;

  private final InputStream in;
  private final boolean utf8;

  /** True if the first 128 bytes mean in this encoding what they mean in UTF-8, wherever met. */
  private final boolean ascii;

  private final CharsetDecoder decoder;
  private final CharsetEncoder encoder = StandardCharsets.UTF_8.newEncoder();

  /** Bytes of the file that are still to be decoded, or that begin a character. */
  private final ByteBuffer raw = ByteBuffer.allocate(BLOCK).flip();

  private final CharBuffer chars = CharBuffer.allocate(BLOCK);

  /** What was decoded and is still to be handed out. */
  private final ByteBuffer ready = ByteBuffer.allocate(BLOCK * 4).flip();

  private boolean ended;

  Utf8Input(Path file, Charset charset, ReadProgress progress) throws IOException {
    in = TextFiles.unmarked(file, progress);
    utf8 = charset.equals(StandardCharsets.UTF_8);
    String name = charset.name();
    ascii =
        utf8
            || charset.equals(StandardCharsets.US_ASCII)
            || name.startsWith("ISO-8859-")
            || name.startsWith("windows-125");
    decoder = TextFiles.decoder(charset);
    encoder.onMalformedInput(CodingErrorAction.REPLACE);
  }

  /**
   * Reads on.
   *
   * @param length room for at least one character, and what may have been kept of it: 8
   * @return bytes read, more than none; -1 at the end of the file
   */
  int read(byte[] into, int from, int length) throws IOException {
    while (!ready.hasRemaining()) {
      if (ended) {
        return -1;
      }
      if (ascii && raw.remaining() < Encodings.LONGEST) {
        int n = pass(into, from, length);
        if (n > 0) {
          return n;
        }
      } else {
        decode();
      }
    }
    int n = Math.min(length, ready.remaining());
    ready.get(into, from, n);
    return n;
  }

  /** Passes on what needs no decoding; keeps the rest. */
  private int pass(byte[] into, int from, int length) throws IOException {
    int kept = raw.remaining();
    raw.get(into, from, kept);
    int n = in.read(into, from + kept, Math.min(length, BLOCK) - kept);
    int end = from + kept + Math.max(0, n);
    int plain = Encodings.plainUntil(into, from, end);
    if (utf8 && plain < end) {
      plain = Encodings.validUntil(into, plain, end);
    }
    raw.clear().put(into, plain, end - plain).flip();
    if (n < 0 || raw.remaining() >= Encodings.LONGEST || raw.hasRemaining() && !utf8) {
      decode();
    }
    return plain - from;
  }

  private void decode() throws IOException {
    raw.compact();
    int n = in.read(raw.array(), raw.position(), raw.remaining());
    raw.position(raw.position() + Math.max(0, n)).flip();
    boolean last = n < 0;
    decoder.decode(raw, chars, last);
    if (last && !raw.hasRemaining()) {
      decoder.flush(chars);
      ended = true;
    }
    encoder.encode(chars.flip(), ready.clear(), ended);
    chars.compact();
    ready.flip();
  }

  @Override
  public void close() throws IOException {
    in.close();
  }
}
