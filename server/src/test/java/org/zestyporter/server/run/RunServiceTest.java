package org.zestyporter.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;
import org.zestyporter.server.store.Space;

class RunServiceTest {
  private static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC);

  private final RunMapper runs = mock();
  private final PlanService plans = mock();
  private final SourceService sources = mock();
  private final Jobs jobs = mock();
  private final Settling settling = mock();
  private final RunService service =
      new RunService(
          runs,
          plans,
          sources,
          mock(),
          mock(),
          jobs,
          settling,
          mock(),
          new BusyPlans(),
          mock(),
          mock(Space.class),
          CLOCK);

  @Test
  void whatWasGoingWhenTheServerStoppedIsOverAndKeepsNoLedger() {
    when(runs.inState("going")).thenReturn(List.of(4L, 5L));
    when(runs.find(anyLong()))
        .thenReturn(
            ExecutionRecord.beginning(
                "run", 1, 1, 1, null, "odile", LocalDateTime.of(2026, 11, 23, 8, 0), null));
    service.afterStart();
    verify(runs).dropLedger(4);
    verify(runs).dropLedger(5);
    verify(runs).failInterrupted(LocalDateTime.of(2026, 11, 23, 9, 0));
    verify(settling).begin();
  }

  @Test
  void planThatCannotBeOpenedStartsNothing() {
    when(plans.outline(anyLong())).thenThrow(ErrorCode.NO_SUCH_PLAN.error("gone"));
    assertThatThrownBy(() -> service.run(1, "odile")).hasMessage("gone");
    verify(runs, never()).insert(any());
    verify(jobs, never()).start(any(), any());
  }

  @Test
  void missingRunIsSaidSo() {
    assertThatThrownBy(() -> service.find(9))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> assertThat(e.code().kind()).isEqualTo(ErrorCode.Kind.MISSING));
    assertThat(service.last(9, "run")).isNull();
  }
}
