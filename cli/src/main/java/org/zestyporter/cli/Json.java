package org.zestyporter.cli;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.io.PrintWriter;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.json.JsonMapper;

/** Prints one JSON document and nothing else; nulls are written. */
final class Json {
  private static final JsonMapper MAPPER =
      PlanJson.MAPPER
          .rebuild()
          .changeDefaultPropertyInclusion(i -> i.withValueInclusion(JsonInclude.Include.ALWAYS))
          .build();

  private Json() {}

  static void print(PrintWriter out, Object value) {
    out.println(MAPPER.writeValueAsString(value));
    out.flush();
  }
}
