package org.zestyporter.server.web;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * What deleting something means, said before it is done.
 *
 * @param goes what goes with it, in words
 * @param affected what stays and misses it, in words
 * @param refused why it can't be deleted now; null if it can
 */
public record Deletion(List<String> goes, List<String> affected, @Nullable String refused) {

  /**
   * Throws if it can't be deleted now.
   *
   * @throws PorterException with code {@code in-use}
   */
  public void require() {
    if (refused != null) {
      throw ErrorCode.IN_USE.error(refused);
    }
  }

  /** A number of things in words, such as “2 runs”. */
  public static String count(long number, String one, String many) {
    return String.format(java.util.Locale.ROOT, "%,d %s", number, number == 1 ? one : many);
  }
}
