package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;

/** The interface's types are generated from web/openapi.json, which must not be stale. */
class ApiDocumentTest extends ServerTest {
  private static final Path KEPT = Path.of("..", "web", "openapi.json");

  @Test
  void keptDocumentIsTheServersOwn() throws Exception {
    String now = PlanJson.MAPPER.writeValueAsString(sorted(get("/v3/api-docs").body())) + "\n";
    if (Boolean.getBoolean("openapi.write")) {
      Files.writeString(KEPT, now);
    }
    assertThat(Files.readString(KEPT)).as("make it anew: ./porter api").isEqualTo(now);
  }

  private static Object sorted(tools.jackson.databind.JsonNode document) {
    ((tools.jackson.databind.node.ObjectNode) document).remove("servers");
    return PlanJson.MAPPER
        .rebuild()
        .enable(tools.jackson.databind.SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
        .build()
        .treeToValue(document, java.util.TreeMap.class);
  }
}
