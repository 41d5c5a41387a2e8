/** One parser for each format: from bytes to rows of cells. */
package org.zestyporter.core.source.parse;
