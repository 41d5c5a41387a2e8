package org.zestyporter.server.run;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Plans that are being rehearsed or run. */
@Component
class BusyPlans {
  private final Map<Long, Beginning> plans = new ConcurrentHashMap<>();

  /**
   * The plan is busy from here on.
   *
   * @throws PorterException if it is already
   */
  Beginning begin(long plan) {
    Beginning beginning = new Beginning(plan);
    if (plans.putIfAbsent(plan, beginning) != null) {
      throw ErrorCode.ALREADY_GOING.error("This plan is being rehearsed or run already.");
    }
    return beginning;
  }

  /** The plan can be rehearsed or run again, unless another one has begun since. */
  void free(Beginning beginning) {
    plans.remove(beginning.plan(), beginning);
  }

  boolean isBusy(long plan) {
    return plans.containsKey(plan);
  }
}
