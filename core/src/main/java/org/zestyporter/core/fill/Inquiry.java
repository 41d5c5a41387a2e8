package org.zestyporter.core.fill;

import java.util.function.Consumer;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.value.ValueColumn;

/**
 * Something that compiled fills have to know of the application before they can compute.
 *
 * @param learn takes records of the answer, one column an asked field
 * @param answered is called when the answer has been given to its end
 */
public record Inquiry(Ask ask, Consumer<ValueColumn[]> learn, Runnable answered) {

  /** An inquiry whose answer is learnt record by record. */
  static Inquiry byRecord(Ask ask, Consumer<Object[]> learn, Runnable answered) {
    return new Inquiry(ask, Records.each(learn), answered);
  }
}
