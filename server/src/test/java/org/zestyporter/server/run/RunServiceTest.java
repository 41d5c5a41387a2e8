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
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;

class RunServiceTest {
  private static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC);

  private final RunMapper runs = mock();
  private final PlanService plans = mock();
  private final SourceService sources = mock();
  private final Jobs jobs = mock();
  private final RunService service = new RunService(runs, plans, sources, mock(), jobs, CLOCK);

  @Test
  void whatWasGoingWhenTheServerStoppedIsMarkedAsFailed() {
    service.failInterrupted();
    verify(runs).failInterrupted(LocalDateTime.of(2026, 11, 23, 9, 0));
    verify(runs).failUnsure(LocalDateTime.of(2026, 11, 23, 9, 0));
  }

  @Test
  void planThatCannotBeOpenedStartsNothing() {
    when(plans.open(anyLong())).thenThrow(PorterException.missing("no-such-plan", "gone"));
    assertThatThrownBy(() -> service.run(1, "odile")).hasMessage("gone");
    verify(runs, never()).insert(any());
    verify(jobs, never()).start(anyLong(), any());
  }

  @Test
  void missingRunIsSaidSo() {
    assertThatThrownBy(() -> service.find(9))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> assertThat(e.kind()).isEqualTo(PorterException.Kind.MISSING));
    assertThat(service.last(9, "run")).isNull();
  }
}
