/** Keys, comparison, repeats: which record a row speaks of. */
package org.zestyporter.core.match;
