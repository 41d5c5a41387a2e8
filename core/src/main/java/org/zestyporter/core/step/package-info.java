/** Steps: one class for each, with all that is to say of it. */
@NullMarked
package org.zestyporter.core.step;

import org.jspecify.annotations.NullMarked;
