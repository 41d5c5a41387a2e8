/**
 * Formulas: the OpenFormula subset (OASIS ODF 1.2 part 2) that computes values from a row's
 * columns.
 */
package org.zestyporter.core.formula;
