package org.zestyporter.e2e;

import org.junit.jupiter.api.extension.ConditionEvaluationResult;
import org.junit.jupiter.api.extension.ExecutionCondition;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.TestWatcher;

/**
 * The stations of a journey build on each other: after one has failed, the others are passed over.
 */
final class StopAtFirstFailure implements TestWatcher, ExecutionCondition {
  private static final ExtensionContext.Namespace SPACE =
      ExtensionContext.Namespace.create(StopAtFirstFailure.class);

  @Override
  public void testFailed(ExtensionContext context, Throwable cause) {
    context.getParent().orElseThrow().getStore(SPACE).put("failed", context.getDisplayName());
  }

  @Override
  public ConditionEvaluationResult evaluateExecutionCondition(ExtensionContext context) {
    Object failed = context.getStore(SPACE).get("failed");
    return failed == null
        ? ConditionEvaluationResult.enabled("the journey goes on")
        : ConditionEvaluationResult.disabled("the journey ended at " + failed);
  }
}
