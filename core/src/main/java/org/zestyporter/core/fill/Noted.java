package org.zestyporter.core.fill;

import org.zestyporter.core.value.Problem;

/** A value that a step changed in a way that is counted, such as a text that it cut. */
record Noted(Object value, Problem note) {}
