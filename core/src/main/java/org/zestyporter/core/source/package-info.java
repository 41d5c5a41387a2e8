/**
 * Bytes to rows: telling formats apart, one reader a format, sheets, titles, the columnar cache.
 */
package org.zestyporter.core.source;
