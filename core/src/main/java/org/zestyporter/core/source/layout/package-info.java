/** Which of the cells are the table: titles, range, rows, columns, folds. */
package org.zestyporter.core.source.layout;
