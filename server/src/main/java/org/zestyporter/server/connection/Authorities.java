package org.zestyporter.server.connection;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.jdbc.Address;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.store.OwnerOnly;

/**
 * Certificates of the authorities that vouch for databases. Drivers read them from files of ours,
 * which nobody but this has named.
 */
@Component
class Authorities {
  private static final Map<String, String> SETTINGS =
      Map.of("PostgreSQL", "sslrootcert", "MariaDB", "serverSslCert");

  private final Settings settings;

  Authorities(Settings settings) {
    this.settings = settings;
  }

  /**
   * What a driver is told besides the address.
   *
   * @throws PorterException with code {@code certificate} if it is none, or nobody would look at it
   */
  Map<String, String> told(Address address, @Nullable String certificate) {
    if (certificate == null) {
      return Map.of();
    }
    String setting = SETTINGS.get(address.product());
    if (setting == null || !address.shown().contains("verify-")) {
      throw ErrorCode.CERTIFICATE.error(
          "A certificate authority is only looked at where TLS verifies the certificate.",
          "Choose that, or leave the authority out.");
    }
    require(certificate);
    return Map.of(setting, file(certificate).toString());
  }

  private static void require(String certificate) {
    try {
      CertificateFactory.getInstance("X.509")
          .generateCertificates(
              new ByteArrayInputStream(certificate.getBytes(StandardCharsets.US_ASCII)))
          .iterator()
          .next();
    } catch (CertificateException | java.util.NoSuchElementException e) {
      throw ErrorCode.CERTIFICATE.error(
          "This is no certificate in PEM form: it begins with -----BEGIN CERTIFICATE----- and ends"
              + " with -----END CERTIFICATE-----.");
    }
  }

  /** The same file for the same certificate. */
  private Path file(String certificate) {
    byte[] bytes = certificate.getBytes(StandardCharsets.US_ASCII);
    try {
      Path folder = OwnerOnly.folder(settings.home().resolve("authorities"));
      Path file = folder.resolve(UUID.nameUUIDFromBytes(bytes) + ".pem").toAbsolutePath();
      if (!Files.exists(file)) {
        Lasting.write(file, bytes);
      }
      return file;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
