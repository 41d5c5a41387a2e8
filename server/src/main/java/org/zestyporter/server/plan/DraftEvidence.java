package org.zestyporter.server.plan;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.draft.ProposedTable.FillEvidence;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.JsonNode;

/**
 * Why a draft has filled the fields of a plan's destinations as it did, as it is kept with the
 * plan: by their names, and under no name that of the one which was drafted first. Plans of old
 * keep a list of that one alone.
 */
record DraftEvidence(Map<String, List<FillEvidence>> byName) {
  private static final String FIRST = "";

  static DraftEvidence of(List<FillEvidence> first) {
    return new DraftEvidence(Map.of(FIRST, first));
  }

  static DraftEvidence read(String json) {
    JsonNode kept = PlanJson.MAPPER.readTree(json);
    return kept.isArray()
        ? of(PlanJson.MAPPER.convertValue(kept, new TypeReference<List<FillEvidence>>() {}))
        : new DraftEvidence(PlanJson.MAPPER.convertValue(kept, new TypeReference<>() {}));
  }

  String write() {
    return PlanJson.MAPPER.writeValueAsString(byName);
  }

  /** The same with what a new draft says of the first one. */
  DraftEvidence withFirst(List<FillEvidence> evidence) {
    return with(FIRST, evidence);
  }

  /** The same with what is said of another one. */
  DraftEvidence with(String name, List<FillEvidence> evidence) {
    Map<String, List<FillEvidence>> all = new LinkedHashMap<>(byName);
    all.put(name, evidence);
    return new DraftEvidence(all);
  }

  List<FillEvidence> first() {
    return of(FIRST);
  }

  /** What is said of a destination other than the first; empty if nothing is. */
  List<FillEvidence> of(String name) {
    return byName.getOrDefault(name, List.of());
  }
}
