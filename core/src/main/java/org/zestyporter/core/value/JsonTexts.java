package org.zestyporter.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** JSON documents (RFC 8259) as values of fields. */
final class JsonTexts {
  private static final JsonMapper MAPPER =
      JsonMapper.builder()
          .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .build();

  private JsonTexts() {}

  /** Why a text is no JSON; null if it is. */
  static @Nullable String mistake(String text) {
    try {
      JsonNode node = MAPPER.readTree(text);
      return node == null || node.isMissingNode() ? "no JSON" : null;
    } catch (JacksonException e) {
      return "no valid JSON"
          + (e.getLocation() == null ? "" : ", at character " + e.getLocation().getColumnNr());
    }
  }

  /** The values of an array of plain values, null for null; null if the text is none. */
  static @Nullable List<@Nullable String> values(String text) {
    try {
      JsonNode node = MAPPER.readTree(text);
      if (!node.isArray() || node.valueStream().anyMatch(JsonNode::isContainer)) {
        return null;
      }
      List<@Nullable String> values = new ArrayList<>();
      node.valueStream().forEach(v -> values.add(v.isNull() ? null : v.asString()));
      return values;
    } catch (JacksonException e) {
      return null;
    }
  }

  /** The same for documents that say the same; the text itself if it is no JSON. */
  static String canonical(String text) {
    try {
      StringBuilder out = new StringBuilder(text.length());
      write(MAPPER.readTree(text), out);
      return out.toString();
    } catch (JacksonException e) {
      return text;
    }
  }

  private static void write(JsonNode node, StringBuilder out) {
    if (node.isObject()) {
      Map<String, JsonNode> sorted = new TreeMap<>();
      node.properties().forEach(p -> sorted.put(p.getKey(), p.getValue()));
      out.append('{');
      sorted.forEach(
          (key, value) -> {
            out.append(key.length()).append(':').append(key).append('=');
            write(value, out);
            out.append(',');
          });
      out.append('}');
    } else if (node.isArray()) {
      out.append('[');
      node.forEach(
          item -> {
            write(item, out);
            out.append(',');
          });
      out.append(']');
    } else if (node.isNumber()) {
      out.append(Values.bare(node.decimalValue()));
    } else {
      out.append(node);
    }
  }
}
