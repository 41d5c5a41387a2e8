/** Typed values: cells, reading text as a type in a locale, guessing types over a whole column. */
package org.zestyporter.core.value;
