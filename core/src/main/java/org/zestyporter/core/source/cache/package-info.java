/** The cells of a source in chunks of columns, kept in a file. */
package org.zestyporter.core.source.cache;
