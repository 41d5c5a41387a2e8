package org.zestyporter.core.step;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Problem;

/** A value that a step changed in a way that is counted, such as a text that it cut. */
public record Noted(@Nullable Object value, Problem note) {}
