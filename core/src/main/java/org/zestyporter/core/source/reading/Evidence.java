package org.zestyporter.core.source.reading;

/**
 * Why a setting was found to be what it is.
 *
 * @param setting the part of the reading
 * @param value what was found, in words
 * @param because the reason, in words
 */
public record Evidence(String setting, String value, String because) {}
