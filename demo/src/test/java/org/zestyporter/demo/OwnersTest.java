package org.zestyporter.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;

/** The office's owners with their addresses: three tables from each row. */
class OwnersTest {
  @TempDir Path folder;

  private static Plan plan() throws IOException {
    try (InputStream in = Marina.class.getResourceAsStream("plans/owners.json")) {
      return PlanJson.read(new String(in.readAllBytes(), StandardCharsets.UTF_8));
    }
  }

  @Test
  void eachRowMakesAnOwnerWithAddresses() throws IOException, SQLException {
    String url = "jdbc:h2:mem:" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1;DATABASE_TO_LOWER=TRUE";
    Marina marina = Marina.open();
    Path file = folder.resolve("owners-export.csv");
    new OfficeFiles(marina).owners(file);
    Plan plan = plan();
    try (Connection builder = DriverManager.getConnection(url, "sa", "");
        SourceTable source = SourceReader.open(file, folder.resolve("cells"), plan.reading())) {
      marina.build(builder);
      RunContext context = new RunContext("odile", LocalDateTime.now(), "owners-export.csv");
      OpenedPlan opened =
          new OpenedPlan(Database.connect(url, "sa", ""), source, plan, context, Shared.NONE);
      RunReport rehearsed = new Pipeline(opened).rehearse(Ledger.NONE, Progress.NONE);
      RunReport ran = new Pipeline(opened).run("1", Ledger.NONE, Progress.NONE);
      assertThat(ran.destinations()).isEqualTo(rehearsed.destinations());
      assertThat(ran.balanced()).isTrue();
      RunReport.DestinationReport owners = ran.destinations().get(0);
      assertThat(owners.rows()).isEqualTo(OfficeFiles.OWNERS);
      assertThat(owners.rejected()).isZero();
      RunReport.DestinationReport seasonal = ran.destinations().get(2);
      assertThat(seasonal.rows()).isBetween(1L, OfficeFiles.OWNERS - 1L);
      assertThat(seasonal.added() + seasonal.changed() + seasonal.unchanged())
          .isEqualTo(seasonal.rows());
      RunReport again = new Pipeline(opened).rehearse(Ledger.NONE, Progress.NONE);
      assertThat(again.destinations())
          .allSatisfy(d -> assertThat(d.unchanged()).isEqualTo(d.rows()));
    }
  }
}
