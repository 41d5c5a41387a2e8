package org.zestyporter.core.value;

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
