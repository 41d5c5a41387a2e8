package org.zestyporter.server.plan;

import org.jspecify.annotations.Nullable;

/** A feature that keeps things of plans, which go with them. */
public interface DependsOnPlans {

  /** What goes with a plan, in words; null if nothing. */
  @Nullable String goesWith(long plan);

  /** What goes on with a plan at this moment, in a sentence; null if nothing. */
  @Nullable String goingOn(long plan);

  /** Takes away what is of a plan. */
  void drop(long plan);
}
