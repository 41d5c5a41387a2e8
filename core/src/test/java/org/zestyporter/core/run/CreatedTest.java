package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;

class CreatedTest {

  private static RunReport.MadeRecord made(String table, int number) {
    return new RunReport.MadeRecord(table, "n" + number, null, number);
  }

  @Test
  void allAreCountedAndTheFirstOfEachTableTold() {
    Created created = new Created();
    for (int i = 0; i < Created.TOLD + 500; i++) {
      created.add(made("owner", i));
      if (i % 1_000 == 999) {
        created.add(made("berth", i));
      }
    }
    assertThat(created.counts())
        .extracting(RunReport.MadeCount::table, RunReport.MadeCount::records)
        .containsExactly(tuple("owner", 1_500L), tuple("berth", 1L));
    assertThat(created.told()).hasSize(1_001);
    assertThat(created.told().get(999).value()).isEqualTo("n999");
    Created later = new Created();
    later.add(created.told(), created.counts());
    later.add(made("owner", 7));
    later.add(made("berth", 8));
    assertThat(later.counts().get(0).records()).isEqualTo(1_501);
    assertThat(later.told()).hasSize(1_002);
  }

  @Test
  void reportsFromBeforeItWasCountedAreCounted() {
    RunReport old =
        PlanJson.MAPPER.readValue(
            """
            {"plan": "Arrivals", "source": "a.csv", "state": "done", "read": 2, "destinations": [],
             "questions": [], "problems": [], "controlTotals": [], "created": [
               {"table": "owner", "value": "ada", "row": 2},
               {"table": "owner", "value": "bo", "row": 3}],
             "balanced": true, "seconds": 1, "rowsPerSecond": 2}
            """,
            RunReport.class);
    assertThat(old.createdIn()).isEqualTo(List.of(new RunReport.MadeCount("owner", 2)));
  }
}
