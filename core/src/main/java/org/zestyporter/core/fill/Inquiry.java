package org.zestyporter.core.fill;

import java.util.function.Consumer;
import org.zestyporter.core.application.Ask;

/**
 * Something that compiled fills have to know of the application before they can compute.
 *
 * @param learn takes each record of the answer
 * @param answered is called when the answer has been given to its end
 */
public record Inquiry(Ask ask, Consumer<Object[]> learn, Runnable answered) {}
