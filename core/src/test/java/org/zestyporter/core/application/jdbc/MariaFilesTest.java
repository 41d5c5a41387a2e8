package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.DataInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** A server of MariaDB's protocol may ask its clients for files. */
class MariaFilesTest {
  /** Whatever a server asks for, no file of this side is given away. */
  @Test
  void aServerThatAsksForAFileGetsNothing(@TempDir Path folder) throws Exception {
    Path secret = Files.writeString(folder.resolve("secret"), "the safe's number is 4711");
    ExecutorService thread = Executors.newSingleThreadExecutor();
    try (ServerSocket server = new ServerSocket(0)) {
      Future<String> heard = thread.submit(() -> askForFile(server, secret));
      String url = "jdbc:mariadb://localhost:" + server.getLocalPort() + "/marina";
      assertThatThrownBy(() -> Database.connect(url, "odile", "").table("t"))
          .isInstanceOf(PorterException.class);
      assertThat(heard.get()).contains("odile", "set sql_mode").doesNotContain("4711");
    } finally {
      thread.shutdownNow();
    }
  }

  /** Answers the first statement by asking for a file; gives all that it was sent. */
  private static String askForFile(ServerSocket server, Path file) throws IOException {
    StringBuilder heard = new StringBuilder();
    try (Socket socket = server.accept()) {
      OutputStream out = socket.getOutputStream();
      DataInputStream in = new DataInputStream(socket.getInputStream());
      // version 10 of the protocol, and what every client has to be able to do
      String able = latin("88a2") + "!" + latin("0200") + latin("0800") + latin("15");
      send(
          out,
          0,
          latin("0a")
              + "5.5.5-10.11.1-MariaDB\0\1\0\0\00012345678\0"
              + able
              + "\0".repeat(10)
              + "123456789012\0mysql_native_password\0");
      heard.append(packet(in));
      send(out, 2, "\0\0\0\2\0\0\0");
      heard.append(packet(in));
      send(out, 1, latin("fb") + file);
      socket.setSoTimeout(2_000);
      while (true) {
        heard.append(packet(in));
      }
    } catch (IOException e) {
      return heard.toString();
    }
  }

  private static String latin(String hex) {
    return new String(HexFormat.of().parseHex(hex), StandardCharsets.ISO_8859_1);
  }

  private static void send(OutputStream out, int number, String bytes) throws IOException {
    byte[] body = bytes.getBytes(StandardCharsets.ISO_8859_1);
    out.write(new byte[] {(byte) body.length, (byte) (body.length >> 8), 0, (byte) number});
    out.write(body);
    out.flush();
  }

  private static String packet(DataInputStream in) throws IOException {
    int length = in.readUnsignedByte() | in.readUnsignedByte() << 8 | in.readUnsignedByte() << 16;
    in.readUnsignedByte();
    return new String(in.readNBytes(length), StandardCharsets.ISO_8859_1);
  }

  /** A name can't stand in a statement that would let a server ask for a file. */
  @Test
  void aNameThatAsksForAFileIsRefused() {
    assertThatThrownBy(() -> new MariaDialect().quote("x` load  data local\ninfile '/etc/passwd'"))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> assertThat(e.code()).isEqualTo(ErrorCode.DATABASE_ODD_NAME));
    assertThat(new MariaDialect().quote("load data")).isEqualTo("`load data`");
  }
}
