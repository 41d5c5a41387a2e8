package org.zestyporter.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
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

  private static ExecutionRecord going(long id, String kind, int begun) {
    LocalDateTime then = LocalDateTime.of(2026, 11, 23, 8, 0);
    return new ExecutionRecord(
        id, kind, null, id, 1, 1L, null, "going", "odile", then, null, null, null, null, null, null,
        0, 0, null, null, begun);
  }

  @Test
  void whatHadBegunToWriteWhenTheServerStoppedIsOverAndKeepsNoLedger() {
    when(runs.inState("going")).thenReturn(List.of(4L, 5L, 6L));
    when(runs.find(4)).thenReturn(going(4, "run", 1));
    when(runs.find(5)).thenReturn(going(5, "undo", 1));
    when(runs.find(6)).thenReturn(going(6, "run", 3));
    when(runs.layouts(4)).thenReturn(List.of("goods"));
    service.afterStart();
    for (long id : new long[] {4, 5, 6}) {
      verify(runs).dropLedger(id);
      verify(runs).failInterrupted(id, LocalDateTime.of(2026, 11, 23, 9, 0));
    }
    verify(jobs, never()).start(any(), any());
    verify(settling).begin();
  }

  @Test
  void whatHadOnlyWaitedWhenTheServerStoppedIsBegunAgain() {
    when(runs.inState("going")).thenReturn(List.of(4L, 5L));
    when(runs.find(4)).thenReturn(going(4, "run", 1));
    when(runs.find(5)).thenReturn(going(5, "rehearsal", 2));
    when(runs.layouts(5)).thenReturn(List.of("goods"));
    service.afterStart();
    verify(runs, never()).failInterrupted(anyLong(), any());
    verify(runs).beginAgain(4);
    verify(runs).beginAgain(5);
    verify(jobs, times(2)).start(any(), any());
    assertThatThrownBy(() -> service.run(4, "odile"))
        .as("its plan is busy")
        .isInstanceOf(RuntimeException.class);
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
