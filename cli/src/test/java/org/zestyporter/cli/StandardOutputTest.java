package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.plan.PlanJson;

/** Standard output is the command's own, as a whole process: no library writes there. */
class StandardOutputTest {
  @TempDir Path folder;

  /** A server that refuses all who come; what the driver logs of it is nobody's result. */
  @Test
  void whatADriverLogsIsNotPrinted() throws IOException, InterruptedException {
    Path file = Files.writeString(folder.resolve("boats.csv"), "Name\nMarigold\n");
    try (ServerSocket server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
      Thread refusing = new Thread(() -> refuse(server));
      refusing.start();
      String to = "jdbc:mariadb://127.0.0.1:" + server.getLocalPort() + "/boats";
      ProcessBuilder builder = porter("draft", file.toString(), "--to", to, "--json");
      builder.environment().put("PORTER_DB_USER", "ann");
      Process process = builder.redirectError(folder.resolve("err").toFile()).start();
      String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      assertThat(process.waitFor()).isEqualTo(Porter.DATABASE);
      assertThat(out).isEmpty();
      assertThat(Files.readString(folder.resolve("err")).lines()).hasSize(1);
    }
  }

  private static ProcessBuilder porter(String... words) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(List.of("-cp", System.getProperty("java.class.path"), Porter.class.getName()));
    command.addAll(List.of(words));
    return new ProcessBuilder(command);
  }

  /** As a scheduler starts it, whose locale has no letters but English ones. */
  @Test
  void lettersArePrintedWhateverTheLocaleIs() throws IOException, InterruptedException {
    Path file = Files.writeString(folder.resolve("boats.csv"), "Name\nÅsa 李\n");
    ProcessBuilder builder = porter("look", file.toString(), "--json");
    builder.environment().put("LC_ALL", "C");
    Process process = builder.redirectError(folder.resolve("err").toFile()).start();
    String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor()).isZero();
    assertThat(PlanJson.MAPPER.readTree(out).path("rows").get(0).get(0).asString())
        .isEqualTo("Åsa 李");
  }

  /** Answers as a database does that has too many connections. */
  private static void refuse(ServerSocket server) {
    ByteArrayOutputStream packet = new ByteArrayOutputStream();
    byte[] message = "Too many connections".getBytes(StandardCharsets.US_ASCII);
    // three bytes of length, one of sequence, the sign of an error, and its number, 1040
    packet.writeBytes(new byte[] {(byte) (message.length + 3), 0, 0, 0, (byte) 0xff, 0x10, 0x04});
    packet.writeBytes(message);
    while (!server.isClosed()) {
      try (Socket client = server.accept();
          OutputStream to = client.getOutputStream();
          InputStream from = client.getInputStream()) {
        to.write(packet.toByteArray());
        to.flush();
        from.read();
      } catch (IOException e) {
        return;
      }
    }
  }
}
