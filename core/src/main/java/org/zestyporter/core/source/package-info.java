/**
 * Bytes to rows, in parts: {@code reading} (how), {@code parse} (one parser a format), {@code
 * cache} (chunks of columns), {@code layout} (what of the cells is the table). Here they come
 * together.
 */
package org.zestyporter.core.source;
