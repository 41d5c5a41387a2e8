package org.zestyporter.server;

import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;

/**
 * Settings of an installation.
 *
 * @param home the data folder: our own records, uploads and the key for secrets
 * @param uploadLimit the largest file that is taken
 */
@ConfigurationProperties("porter")
public record Settings(Path home, @DefaultValue("2GB") DataSize uploadLimit) {}
