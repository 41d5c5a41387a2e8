package org.zestyporter.server.plan;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.KnownRecords;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;

/** Keeps what drafts have come to know of each database, from one draft to the next. */
@Component
class DraftKnowledge {
  private static final int DATABASES_KEPT = 100;

  private final Cache<Database, KnownRecords> known =
      Caffeine.newBuilder().weakKeys().maximumSize(DATABASES_KEPT).build();

  /** A draft of a file that knows what earlier ones knew. */
  PlanDraft draft(Database database, SourceTable rows) {
    return draft(database, rows, List.of());
  }

  /**
   * @param memory fills of earlier plans for the same table, the latest first
   */
  PlanDraft draft(Database database, SourceTable rows, List<Fill> memory) {
    return new PlanDraft(known.get(database, KnownRecords::new), rows, memory);
  }

  /** Forgets all: records have changed. */
  void forget() {
    known.invalidateAll();
  }
}
