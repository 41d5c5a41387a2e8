package org.zestyporter.core.plan;

import java.util.List;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;

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
          .addModule(
              new SimpleModule() {
                @Override
                public void setupModule(SetupContext context) {
                  context.addValueInstantiators(new PlainConstructors());
                }
              })
          .build();

  private PlanJson() {}

  public static String write(Plan plan) {
    return MAPPER.writeValueAsString(plan);
  }

  /**
   * Reads a plan.
   *
   * @throws PorterException naming every mistake with its place, with code {@code not-a-plan}
   */
  public static Plan read(String json) {
    return read(json, Plan.class, ErrorCode.NOT_A_PLAN, "The plan");
  }

  /**
   * Reads a reading that stands by itself.
   *
   * @throws PorterException naming every mistake with its place, with code {@code not-a-reading}
   */
  public static Reading readReading(String json) {
    return read(json, Reading.class, ErrorCode.NOT_A_READING, "The reading");
  }

  private static <T> T read(String json, Class<T> type, ErrorCode code, String what) {
    JsonNode document;
    try {
      document = MAPPER.readTree(json);
    } catch (JacksonException e) {
      String place =
          e.getLocation() == null
              ? ""
              : " (line "
                  + e.getLocation().getLineNr()
                  + ", column "
                  + e.getLocation().getColumnNr()
                  + ")";
      throw code.error(
          what + " is not written as JSON" + place + ": a sign is missing or too many.");
    }
    if (document == null || !document.isObject()) {
      throw code.error(what + " is a JSON document that begins with {.");
    }
    List<String> mistakes = JsonMistakes.of(document, type);
    if (!mistakes.isEmpty()) {
      throw code.error(
          what
              + " has "
              + (mistakes.size() == 1 ? "a mistake. " : mistakes.size() + " mistakes. ")
              + String.join(" ", mistakes));
    }
    try {
      return MAPPER.treeToValue(document, type);
    } catch (JacksonException e) {
      for (Throwable cause = e; cause != null; cause = cause.getCause()) {
        if (cause instanceof PorterException told) {
          throw told;
        }
      }
      throw code.error(what + " can't be used: a part of it is missing.");
    }
  }
}
