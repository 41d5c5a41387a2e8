package org.zestyporter.core.plan;

import org.zestyporter.core.value.PorterException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Plans as JSON. */
public final class PlanJson {
  /** For plans and everything else of ours that is written as JSON. */
  public static final JsonMapper MAPPER =
      JsonMapper.builder()
          .changeDefaultPropertyInclusion(
              i ->
                  i.withValueInclusion(
                      com.fasterxml.jackson.annotation.JsonInclude.Include.NON_NULL))
          .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
          .enable(SerializationFeature.INDENT_OUTPUT)
          .build();

  private PlanJson() {}

  public static String write(Plan plan) {
    return MAPPER.writeValueAsString(plan);
  }

  /**
   * Reads a plan.
   *
   * @throws PorterException naming the place if it is not a plan, with code {@code not-a-plan}
   */
  public static Plan read(String json) {
    try {
      return MAPPER.readValue(json, Plan.class);
    } catch (JacksonException e) {
      String place =
          e.getLocation() == null
              ? ""
              : " (line "
                  + e.getLocation().getLineNr()
                  + ", column "
                  + e.getLocation().getColumnNr()
                  + ")";
      String where = e instanceof DatabindException d ? d.getPathReference() : "";
      throw new PorterException(
          PorterException.Kind.INPUT,
          "not-a-plan",
          "The plan can't be read"
              + place
              + ": "
              + e.getOriginalMessage()
                  .split("\n")[0]
                  .replaceAll("\\(?(class|enum)? ?`?[a-z]+(\\.[\\w$]+)+`?\\)?", "")
              + path(where),
          e);
    }
  }

  private static String path(String reference) {
    String path =
        reference
            .replaceAll("[\\w.$]+\\[\"(\\w+)\"]", "$1")
            .replace("->", " › ")
            .replaceAll("java\\.util\\.[\\w$]+\\[", "[");
    return path.isBlank() ? "" : ", at " + path.replaceAll("[\\w]+(\\.[\\w$]+)+", "");
  }
}
