package org.zestyporter.server.plan;

import org.jspecify.annotations.Nullable;

/** A feature that keeps things of plans, which go with them. */
public interface DependsOnPlans {

  /** What goes with a plan, in words; null if nothing. */
  @Nullable String goesWith(long plan);

  /** What goes on with a plan at this moment, in a sentence; null if nothing. */
  @Nullable String goingOn(long plan);

  /**
   * The plan that a run was made by.
   *
   * @param run what the run is called, such as {@code Run 2026-0003}
   * @return null if there is no such run
   */
  default @Nullable Long planOf(String run) {
    return null;
  }

  /** Takes away what is of a plan. */
  void drop(long plan);
}
