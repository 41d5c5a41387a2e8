package org.zestyporter.server.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.ArgumentCaptor;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.connection.CheckService;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.phrasebook.PhrasebookService;
import org.zestyporter.server.source.SourceService;

class PlanServiceTest {
  private static final LocalDateTime THEN = LocalDateTime.of(2026, 11, 20, 8, 0);
  private static final Plan PLAN =
      new Plan(
          "Arrivals", "marina", null, List.of(new Destination("vessel", null, null, null)), null);

  private final PlanMapper plans = mock();
  private final SourceService sources = mock();
  private final ConnectionService connections = mock();
  private final PlanService service =
      new PlanService(
          plans,
          sources,
          connections,
          mock(CheckService.class),
          mock(PhrasebookService.class),
          new FillCache(java.time.Clock.systemUTC()),
          new Drafting(plans, connections),
          mock(),
          Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC));

  @BeforeEach
  void kept() {
    when(plans.find(7))
        .thenReturn(
            new PlanRecord(
                7L,
                "Arrivals",
                3L,
                4,
                PlanJson.write(PLAN),
                "[]",
                null,
                "[\"Reg No\"]",
                "hana",
                THEN,
                THEN));
  }

  @ParameterizedTest
  @CsvSource({
    "winter-arrivals.xlsx,Winter arrivals",
    "OWNERS_export.2026.csv,OWNERS export.2026",
    ".csv,New plan",
    "---.csv,New plan",
    "éphémère,Éphémère"
  })
  void plansAreNamedAfterTheirFile(String file, String title) {
    assertThat(PlanService.title(file)).isEqualTo(title);
  }

  @Test
  void savingKeepsTheNextRevisionAndWhoAndWhen() {
    when(plans.save(any())).thenReturn(1);
    service.save(7, new PlanViews.SavePlan(4, PLAN), 0, "odile");
    ArgumentCaptor<PlanRecord> saved = ArgumentCaptor.forClass(PlanRecord.class);
    verify(plans).insertRevision(saved.capture());
    assertThat(saved.getValue().revision()).isEqualTo(5);
    assertThat(saved.getValue().savedBy()).isEqualTo("odile");
    assertThat(saved.getValue().savedAt()).isEqualTo(LocalDateTime.of(2026, 11, 23, 9, 0));
    assertThat(PlanJson.read(saved.getValue().document())).isEqualTo(PLAN);
  }

  @Test
  void savingOverSomebodyElseTellsWhoAndKeepsNothing() {
    when(plans.save(any())).thenReturn(0);
    assertThatThrownBy(() -> service.save(7, new PlanViews.SavePlan(3, PLAN), 0, "odile"))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> {
              assertThat(e.code().kind()).isEqualTo(ErrorCode.Kind.CONFLICT);
              assertThat(e.getMessage()).contains("hana").contains("revision 4");
            });
    verify(plans, never()).insertRevision(any());
  }

  @Test
  void readingThatCannotBeIsRefusedBeforeAnythingIsKept() {
    when(sources.table(eq(3L), any())).thenThrow(ErrorCode.ENCODING.error("no such encoding"));
    assertThatThrownBy(() -> service.save(7, new PlanViews.SavePlan(4, PLAN), 0, "odile"))
        .hasMessage("no such encoding");
    verify(plans, never()).save(any());
  }

  @Test
  void fileThatThePlanCannotReadDoesNotTakeThePlaceOfTheOldOne() {
    when(sources.find(9)).thenReturn(mock());
    when(sources.table(eq(9L), any()))
        .thenThrow(ErrorCode.NO_SUCH_SHEET.error("The workbook has no sheet “Arrivals”."));
    assertThatThrownBy(() -> service.useSource(7, 9)).hasMessageContaining("no sheet");
    verify(plans, never()).useSource(eq(7L), eq(9L), any(), any());
  }

  @Test
  void planThatIsGoneIsSaidSo() {
    assertThatThrownBy(() -> service.open(8)).hasMessageContaining("no such plan");
    assertThatThrownBy(() -> service.useSource(8, 1)).hasMessageContaining("no such plan");
    verify(plans, never()).useSource(eq(8L), eq(1L), any(), any());
  }
}
